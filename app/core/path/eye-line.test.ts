import { expect, test } from "@jest/globals";
import type { Track } from "../subjects/tracking/track";
import { eyesAt, heightForEyes } from "./eye-line";

const HEAD = { x: 900, y: 200, width: 120, height: 160 };
const track = (kind: Track["kind"], box = HEAD): Track => ({ id: kind, kind, start: 5, boxes: [box], confidence: 1 });

test("eyes are in the upper half of a face, or of the head's part of a body; things have none", () => {
  expect(eyesAt(track("face"), 5)).toBe(264);
  expect(eyesAt(track("person", { ...HEAD, height: 1000 }), 5)).toBeCloseTo(200 + 0.4 * 280);
  expect(eyesAt(track("object"), 5)).toBeNull();
  expect(eyesAt(track("face"), 6)).toBeNull();
});

test("the window is as large as the room above and below eyes on their line allows", () => {
  const height = (eyes: number) => heightForEyes(eyes, 1 / 3, 1080, 1080);
  expect(height(360)).toBeCloseTo(1080);
  expect(height(264)).toBeCloseTo(792);
  expect(height(560)).toBeCloseTo((1080 - 560) * 1.5);
  // The window that results holds the eyes at a third of it, and does not leave the picture.
  const top = 264 - height(264) / 3;
  expect(top).toBeCloseTo(0);
});
