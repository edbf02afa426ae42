import { describe, expect, test } from "@jest/globals";
import { seeded } from "../../../demo/film/random";
import { CELLS, type FrameFeatures, LUMA_GRID } from "../shots/frame-features";
import type { FrameRange } from "../time/rate";
import { ActivityMeter, joinActivity, packActivity, partOfActivity, unpackActivity } from "./activity";
import { idleRanges } from "./idle-ranges";

const RATE = { num: 30, den: 1 };
const FRAMES = 600;

interface Scene {
  blank?: FrameRange[];
  moving?: FrameRange[];
  speaking?: FrameRange[];
  /** Levels of luma by which every sample is off at random. */
  grain?: number;
}
const inAny = (ranges: FrameRange[] = [], frame: number) =>
  ranges.some(({ start, end }) => frame >= start && frame < end);

/** Twenty seconds of a textured picture in which a patch moves now and then, and somebody speaks. */
function activityOf({ blank, moving, speaking, grain = 1 }: Scene, frames = FRAMES) {
  const random = seeded(5);
  const texture = Array.from({ length: LUMA_GRID.columns * LUMA_GRID.rows }, () => 60 + 120 * random());
  let at = 10;
  const features = Array.from({ length: frames }, (_, frame): FrameFeatures => {
    if (inAny(moving, frame)) at = 10 + (frame % 30);
    const luma = Uint8Array.from(texture, (value, i) => {
      if (inAny(blank, frame)) return 16;
      const [x, y] = [i % LUMA_GRID.columns, Math.floor(i / LUMA_GRID.columns)];
      const lit = x >= at && x < at + 6 && y > 10 && y < 20 ? 230 : value;
      return lit + grain * (random() - 0.5);
    });
    return { luma, histogram: new Uint8Array(80), chroma: new Uint8Array(2 * CELLS.columns * CELLS.rows) };
  });
  const speech = Uint8Array.from({ length: frames }, (_, frame) => (inAny(speaking, frame) ? 240 : 5));
  return new ActivityMeter(RATE).measure(features, speech);
}
const found = (scene: Scene, cuts: number[] = []) =>
  idleRanges(activityOf(scene), cuts, RATE).map(({ kind, start, end }) => [kind, start, end]);
const ALL = [{ start: 0, end: FRAMES }];

describe("what a film can do without", () => {
  test("is nothing while somebody speaks, or something moves", () => {
    expect(found({ speaking: ALL })).toEqual([]);
    expect(found({ moving: ALL })).toEqual([]);
  });

  test("is a blank head and tail, also where there is sound", () => {
    const blank = [
      { start: 0, end: 30 },
      { start: 570, end: 600 },
    ];
    expect(found({ blank, speaking: ALL })).toEqual([
      ["blank", 0, 30],
      ["blank", 570, 600],
    ]);
  });

  test("is a range in which nobody speaks and nothing moves, less a breath; grain moves nothing", () => {
    const speaking = [
      { start: 0, end: 200 },
      { start: 380, end: 600 },
    ];
    for (const grain of [0, 4, 8]) expect(found({ speaking, grain })).toEqual([["still", 209, 371]]);
  });

  test("is not ended by a blink", () => {
    const speaking = [
      { start: 0, end: 200 },
      { start: 380, end: 600 },
    ];
    expect(found({ speaking, moving: [{ start: 290, end: 294 }] })).toEqual([["still", 209, 371]]);
  });

  test("is a pause in speech of one take, whatever moves in it, and not the silence around a cut", () => {
    const speaking = [
      { start: 0, end: 200 },
      { start: 280, end: 600 },
    ];
    expect(found({ speaking, moving: ALL })).toEqual([["pause", 209, 271]]);
    expect(found({ speaking, moving: ALL }, [240])).toEqual([]);
    // A breath is none.
    expect(found({ speaking: [speaking[0]!, { start: 235, end: 600 }], moving: ALL })).toEqual([]);
  });
});

test("activity is packed and joined", () => {
  const whole = activityOf({ moving: [{ start: 0, end: 20 }] }, 60);
  expect(unpackActivity(packActivity(whole))).toEqual(whole);
  const half = (start: number, end: number) => partOfActivity(whole, { start, end });
  const parts = [
    { start: 0, ...half(0, 25) },
    { start: 25, ...half(25, 60) },
  ];
  expect(joinActivity(parts, 60)).toEqual(whole);
  // Of what was not looked at nothing is said that could have it left out.
  const gap = joinActivity(parts.slice(1), 60);
  expect([gap.contrast[24], gap.change[24], gap.speech[24]]).toEqual([255, 255, 255]);
  expect(gap.change[25]).toBe(whole.change[25]);
  expect(() => unpackActivity(new Uint8Array(7))).toThrow("cut off");
});
