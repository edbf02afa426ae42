import { expect, test } from "@jest/globals";
import type { Box } from "../../geometry/box";
import type { Detection, FrameDetections } from "../detecting/detection";
import { withMovement } from "./movement";
import type { Track } from "./track";

const POST: Box = { x: 600, y: 200, width: 120, height: 400 };
const CART: Box = { x: 100, y: 400, width: 200, height: 150 };
const track = (box: Box, confidence: number, kind: Track["kind"] = "salient"): Track => ({
  id: kind,
  kind,
  start: 0,
  boxes: Array.from({ length: 100 }, () => box),
  confidence,
});
const moving = (box: Box, score = 0.9): Detection => ({ kind: "motion", box, score });
const frames = (at: (look: number) => Detection[]): FrameDetections[] =>
  Array.from({ length: 10 }, (_, look) => ({ frame: 10 * look, looked: ["motion"], step: 2, detections: at(look) }));
const confidence = (...args: Parameters<typeof withMovement>) => withMovement(...args).confidence;

test("what stands out little is surer for moving whenever anything does", () => {
  const some = frames((look) => (look < 3 ? [moving({ ...POST, x: 580, width: 160 })] : []));
  expect(confidence(track(POST, 0.2), some, [])).toBe(0.75);
  expect(confidence(track(POST, 0.9), some, [])).toBe(0.9);
});

test("what stands while something else goes through the picture is less likely what the shot is about", () => {
  const much = frames(() => [moving(CART)]);
  expect(confidence(track(POST, 0.9), much, [])).toBeLessThan(0.4);
  expect(confidence(track(CART, 0.9), much, [])).toBe(0.9);
  // A moment of it, a movement that is doubtful, and text that stays while the camera moves, say nothing.
  expect(
    confidence(
      track(POST, 0.9),
      frames((look) => (look === 4 ? [moving(CART)] : [])),
      [],
    ),
  ).toBe(0.9);
  expect(
    confidence(
      track(POST, 0.9),
      frames(() => [moving(CART, 0.5)]),
      [],
    ),
  ).toBe(0.9);
  expect(confidence(track(POST, 0.9), much, [track(CART, 1, "text")])).toBe(0.9);
});

test("of what an arm moves, the thing it holds is surer, and neither the arm nor what it passes before", () => {
  const withArm = { x: 100, y: 200, width: 900, height: 450 };
  const inHand = frames(() => [{ ...moving(CART), withArm }]);
  expect(confidence(track({ ...CART, x: 120 }, 0.2), inHand, [])).toBe(0.75);
  expect(confidence(track(POST, 0.9), inHand, [])).toBeLessThan(0.4);
  expect(confidence(track(withArm, 0.9), inHand, [])).toBeLessThan(0.4);
});
