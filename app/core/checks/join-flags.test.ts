import { expect, test } from "@jest/globals";
import { covering } from "../composition/layout";
import { shownIn } from "../composition/shown";
import type { Track } from "../subjects/tracking/track";
import { USUAL_LIMITS } from "./check-settings";
import { joinFlags, sidesOf } from "./join-flags";

const TALL = { width: 1080, height: 1920 };
const RATE = { num: 25, den: 1 };

/** A shot of 50 frames whose window, 405 wide, is at `x`, and in which somebody's face is at `faceX`. */
function shot(start: number, x: (i: number) => number, faceX: (i: number) => number, who = "ada") {
  const range = { start, end: start + 50 };
  const frames = Array.from({ length: 50 }, (_, i) => i);
  const windows = frames.map((i) => ({ x: x(i), y: 360, height: 720 }));
  const face: Track = {
    id: "face",
    kind: "face",
    start,
    confidence: 0.9,
    who,
    boxes: frames.map((i) => ({ x: faceX(i), y: 200, width: 60, height: 80 })),
  };
  const shown = shownIn([{ range, windows, laidOut: covering(TALL) }], TALL, 25);
  const area = { x: 0, y: 0, width: 1280, height: 720 };
  const set = { protect: null, settings: { largestScale: 9, mustHave: [] }, limits: USUAL_LIMITS, rate: RATE };
  return sidesOf({ ...set, kept: [range], tracks: [face], area }, face, shown);
}
const goesOn = { from: false, into: false };
const still = (start: number, faceX: number, who?: string) =>
  shot(
    start,
    () => 500,
    () => faceX,
    who,
  );

test("eyes that jump by more than a third of the frame at a cut, of the same person only", () => {
  const [left, right] = [still(0, 310), still(50, 600)];
  expect(joinFlags({ before: left, shot: right, goesOn }, 1 / 3)).toMatchObject([
    { kind: "jolt", frame: 50, text: "Eye-trace jump of 72% of the frame at this cut" },
  ]);
  expect(joinFlags({ before: left, shot: still(50, 400), goesOn }, 1 / 3)).toEqual([]);
  expect(joinFlags({ before: left, shot: still(50, 600, "ben"), goesOn }, 1 / 3)).toEqual([]);
  // A switch within one take, and a range that is left out, are no cut.
  expect(joinFlags({ before: left, shot: right, goesOn: { from: true, into: false } }, 1 / 3)).toEqual([]);
  expect(joinFlags({ before: left, shot: still(80, 600), goesOn }, 1 / 3)).toEqual([]);
  expect(joinFlags({ before: null, shot: right, goesOn }, 1 / 3)).toEqual([]);
});

test("a window that still moves at a cut, unless it goes along with its subject or into the next shot", () => {
  const leaving = shot(
    0,
    (i) => 500 + Math.max(0, i - 40) * 10,
    () => 560,
  );
  expect(joinFlags({ before: null, shot: leaving, goesOn }, 1)).toMatchObject([
    { kind: "moving-at-cut", frame: 49, text: expect.stringContaining("still moving at the cut (62% of its width") },
  ]);
  expect(joinFlags({ before: null, shot: leaving, goesOn: { from: false, into: true } }, 1)).toEqual([]);
  const along = shot(
    0,
    (i) => 500 + 5 * i,
    (i) => 470 + 5 * i,
  );
  expect(joinFlags({ before: null, shot: along, goesOn }, 1)).toEqual([]);
});
