import { expect, test } from "@jest/globals";
import { fill } from "../composition/composition";
import type { Track } from "../subjects/tracking/track";
import { coveredLooks } from "./covered-looks";

const TALL = { width: 1080, height: 1920 };
const kept = [{ start: 0, end: 40 }];
/** The window shows x from 0 to 607.5 of a picture that is 1080 high. */
const shown = () => fill({ x: 303.75, y: 540, height: 1080 }, TALL);
const face = (y: (frame: number) => number, kind: Track["kind"] = "face"): Track => ({
  ...{ id: "a", kind, start: 0, confidence: 1 },
  boxes: Array.from({ length: 40 }, (_, i) => ({ x: 250, y: y(i), width: 100, height: 120 })),
});
const safe = { left: 0, top: 0.05, right: 0, foot: 0.25 };

test("a face under what covers the frame is worth a look, with the frames and their number", () => {
  // The covered part begins at three quarters of the height.
  const low = face((frame) => (frame < 10 ? 750 : 300));
  expect(coveredLooks(low, kept, shown, safe)).toEqual([
    { kind: "face-covered", frame: 0, text: "Face outside the safe area in 10 of 40 frames" },
  ]);
  expect(coveredLooks(low, [{ start: 10, end: 40 }], shown, safe)).toEqual([]);
});

test("a face in the clear, one that is covered for a moment, and what is no face are not", () => {
  expect(
    coveredLooks(
      face(() => 300),
      kept,
      shown,
      safe,
    ),
  ).toEqual([]);
  expect(
    coveredLooks(
      face((frame) => (frame < 2 ? 800 : 300)),
      kept,
      shown,
      safe,
    ),
  ).toEqual([]);
  expect(
    coveredLooks(
      face(() => 800, "object"),
      kept,
      shown,
      safe,
    ),
  ).toEqual([]);
  expect(coveredLooks(null, kept, shown, safe)).toEqual([]);
});
