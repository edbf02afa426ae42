import { expect, test } from "@jest/globals";
import type { FrameDetections } from "../detecting/detection";
import { actingIn } from "./acting";
import type { Track } from "./track";

const RATE = { num: 30, den: 1 };
const STEP = 10;
const box = { x: 400, y: 200, width: 100, height: 300 };
const track: Track = { id: "a", kind: "person", start: 0, boxes: Array(300).fill(box), confidence: 0.9 };

/** What is seen every ten frames, where something moves in some ranges. */
const seen = (moving: { x: number; y: number; width: number; height: number }, from: number, to: number, score = 0.9) =>
  Array.from({ length: 30 }, (_, i): FrameDetections => {
    const frame = STEP * i;
    const moves = frame > from && frame <= to;
    return { frame, looked: ["motion"], step: 1, detections: moves ? [{ kind: "motion", box: moving, score }] : [] };
  });
const arm = { x: 380, y: 230, width: 70, height: 80 };

test("what moves within a box is its own, from the look before to the one at which it is seen", () => {
  expect(actingIn(track, seen(arm, 90, 150), RATE)).toEqual([{ start: 90, end: 151 }]);
});

test("a twitch, a faint movement, one beside it, and one of all the picture are not", () => {
  expect(actingIn(track, seen(arm, 90, 100), RATE)).toEqual([]);
  expect(actingIn(track, seen(arm, 90, 150, 0.4), RATE)).toEqual([]);
  expect(actingIn(track, seen({ ...arm, x: 600 }, 90, 150), RATE)).toEqual([]);
  expect(actingIn(track, seen({ x: 0, y: 0, width: 900, height: 600 }, 90, 150), RATE)).toEqual([]);
});

test("a pause within a movement does not end it", () => {
  const [one, two] = [seen(arm, 60, 110), seen(arm, 120, 180)];
  const both = one.map((frame, i) => ({ ...frame, detections: [...frame.detections, ...two[i]!.detections] }));
  expect(actingIn(track, both, RATE)).toEqual([{ start: 60, end: 181 }]);
});
