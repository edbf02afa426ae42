import { expect, test } from "@jest/globals";
import type { Box } from "../../geometry/box";
import type { FrameDetections } from "../detecting/detection";
import { withWords } from "./signs";
import type { Track } from "./track";

const BOARD: Box = { x: 100, y: 100, width: 300, height: 200 };
const track: Track = { id: "a", kind: "salient", start: 0, boxes: Array<Box>(60).fill(BOARD), confidence: 0.9 };
const looks = (written: (look: number) => number, box = BOARD): FrameDetections[] =>
  Array.from({ length: 6 }, (_, look) => ({
    frame: 10 * look,
    looked: ["salient"],
    step: 2,
    detections: [{ kind: "salient", box, score: 0.9, written: written(look) }],
  }));
const confidence = (...args: Parameters<typeof looks>) => withWords(track, looks(...args)).confidence;

test("a board that is full of words is less likely what a shot is about, and a thing with a label hardly less", () => {
  expect(confidence(() => 0.4)).toBeCloseTo(0.315);
  expect(confidence(() => 0.05)).toBeGreaterThan(0.75);
  expect(confidence(() => 0)).toBe(0.9);
});

test("words in a few pictures, or on something else, say nothing", () => {
  expect(confidence((look) => (look < 2 ? 0.4 : 0))).toBe(0.9);
  expect(confidence(() => 0.4, { ...BOARD, x: 600 })).toBe(0.9);
});
