import { describe, expect, test } from "@jest/globals";
import { type Clip, clipBorders, leftOutOfClips, shownOfClip } from "./clip";
import { planClips } from "./plan-clips";

const WIDE = { picture: { width: 1920, height: 1080 }, rate: { num: 25, den: 1 }, frames: 100 };
const UPRIGHT = { picture: { width: 1080, height: 1920 }, rate: { num: 30, den: 1 }, frames: 60 };

describe("clips are brought to one grid", () => {
  test("of the rate that most of them have, one after the other", () => {
    const plan = planClips([UPRIGHT, WIDE]);
    expect(plan.rate).toEqual(WIDE.rate);
    expect(plan.clips.map(({ start, end }) => [start, end])).toEqual([
      [0, 50],
      [50, 150],
    ]);
    expect(planClips([UPRIGHT, WIDE], UPRIGHT.rate).clips.map(({ end }) => end)).toEqual([60, 180]);
  });

  test("in a picture in which each has all of its pixels", () => {
    const { picture, clips } = planClips([WIDE, UPRIGHT]);
    expect(picture).toEqual({ width: 1920, height: 1920 });
    expect(clips.map(({ area }) => area)).toEqual([
      { x: 0, y: 420, width: 1920, height: 1080 },
      { x: 420, y: 0, width: 1080, height: 1920 },
    ]);
  });

  test("the smaller one as large as fits, on even pixels", () => {
    const small = { ...WIDE, picture: { width: 641, height: 359 } };
    const { picture, clips } = planClips([WIDE, small]);
    expect(picture).toEqual(WIDE.picture);
    expect(clips[0]!.area).toEqual({ x: 0, y: 0, ...WIDE.picture });
    const { area } = clips[1]!;
    expect(area.width).toBe(1920);
    for (const value of Object.values(area)) expect(value % 2).toBe(0);
    expect(area.height / area.width).toBeCloseTo(359 / 641, 2);
  });
});

describe("a clip's in and out points", () => {
  const clip = (start: number, end: number, first: number | null, out: number | null): Clip => ({
    id: `c${start}`,
    name: "Kite.mp4",
    start,
    end,
    in: first,
    out,
    area: { x: 0, y: 0, width: 1920, height: 1080 },
    picture: { width: 1920, height: 1080 },
  });

  test("are counted from its own beginning, and leave the rest out", () => {
    const clips = [clip(0, 100, null, 40), clip(100, 150, 10, null), clip(150, 160, null, null)];
    expect(clips.map(shownOfClip)).toEqual([
      { start: 0, end: 40 },
      { start: 110, end: 150 },
      { start: 150, end: 160 },
    ]);
    expect(leftOutOfClips(clips)).toEqual([
      { start: 40, end: 100 },
      { start: 100, end: 110 },
    ]);
    expect(clipBorders(clips)).toEqual([100, 150]);
    expect(leftOutOfClips([])).toEqual([]);
  });
});
