import { expect, test } from "@jest/globals";
import { fill } from "../composition/composition";
import type { Track } from "../subjects/tracking/track";
import { USUAL_LIMITS } from "./check-settings";
import { coveredFlags } from "./covered-flags";

const TALL = { width: 1080, height: 1920 };
const kept = [{ start: 0, end: 40 }];
/** The window shows x from 0 to 607.5 of a picture that is 1080 high. */
const shown = () => fill({ x: 303.75, y: 540, height: 1080 }, TALL);
const boxed = (y: (frame: number) => number, kind: Track["kind"] = "face"): Track => ({
  id: "a",
  kind,
  start: 0,
  confidence: 1,
  boxes: Array.from({ length: 40 }, (_, i) => ({ x: 250, y: y(i), width: 100, height: 120 })),
});
const at = {
  kept,
  shown,
  tracks: [],
  limits: USUAL_LIMITS,
  rate: { num: 25, den: 1 },
  // The covered part begins at three quarters of the height.
  safe: { left: 0, top: 0.05, right: 0, foot: 0.25 },
};
const low = boxed((frame) => (frame >= 10 && frame < 25 ? 750 : 300));

test("a face under what covers the frame is worth a look, for as long as it is", () => {
  const [flag, ...more] = coveredFlags(low, at);
  expect(more).toEqual([]);
  expect(flag).toMatchObject({ kind: "face-covered", range: { start: 10, end: 25 }, frame: 10 });
  expect(flag!.text).toBe("Face outside the safe area for 0.6 s, up to 50% of it");
  expect(coveredFlags(low, { ...at, kept: [{ start: 25, end: 40 }] })).toEqual([]);
});

test("text of the film is told as well, with how much of it is covered", () => {
  const text = boxed(() => 713, "text");
  expect(coveredFlags(null, { ...at, tracks: [text] })).toMatchObject([
    {
      kind: "text-covered",
      range: { start: 0, end: 40 },
      text: "Text outside the safe area for 1.6 s, up to 19% of it",
    },
  ]);
});

test("a face in the clear, one that is covered for a moment, and what is no face are not", () => {
  const none = [boxed(() => 300), boxed((frame) => (frame < 9 ? 800 : 300)), boxed(() => 800, "object"), null];
  for (const subject of none) expect(coveredFlags(subject, at)).toEqual([]);
});
