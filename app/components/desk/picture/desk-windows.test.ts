import { describe, expect, test } from "@jest/globals";
import type { FramedShot } from "~/core/path/shot-framing";
import { freeAxes, windowOfShots } from "./desk-windows";

const HD = { width: 1920, height: 1080 };
const ASPECT = 9 / 16;
const framed = (start: number, places: number[], height = 1080) =>
  ({
    keys: places.map((x, i) => ({ frame: start + i, x, y: 540, height, easing: "linear", by: "solver" })),
    windows: places.map((x) => ({ x, y: 540, height })),
  }) as unknown as FramedShot;
const shots = [
  { start: 0, end: 3, active: null, handKeys: [], framed: framed(0, [400, 410, 420]) },
  {
    ...{ start: 3, end: 6, active: null, framed: null },
    handKeys: [{ frame: 4, x: 900, y: 540, height: 1080, easing: null }],
  },
];

describe("the window on the desk", () => {
  test("is where the path has it, or a key that has just been placed; without a path in the middle", () => {
    const at = (frame: number) => windowOfShots(shots, frame, HD, ASPECT).x;
    expect([0, 2, 3, 4, 5].map(at)).toEqual([400, 420, 960, 900, 960]);
    expect(at(99)).toBe(960);
  });

  test("stays out of the film's own bars, also where a key was placed before they were found", () => {
    const active = { x: 0, y: 140, width: 1920, height: 800 };
    const boxed = shots.map((shot) => ({ ...shot, active, framed: null }));
    expect(windowOfShots(boxed, 4, HD, ASPECT)).toMatchObject({ x: 900, y: 540, height: 800 });
    expect(windowOfShots(boxed, 0, HD, ASPECT)).toEqual({ x: 960, y: 540, height: 800 });
  });

  test("moves on the axes on which it is smaller than the picture anywhere", () => {
    expect(freeAxes(shots, HD, ASPECT)).toEqual({ x: true, y: false });
    expect(freeAxes([{ ...shots[0]!, framed: framed(0, [400], 800) }], HD, ASPECT)).toEqual({ x: true, y: true });
    expect(freeAxes(shots, HD, 16 / 9)).toEqual({ x: false, y: false });
    const pillarboxed = { ...shots[1]!, active: { x: 656, y: 0, width: 608, height: 1080 } };
    expect(freeAxes([pillarboxed], HD, ASPECT)).toEqual({ x: false, y: false });
    expect(freeAxes([], { width: 1080, height: 1920 }, 1)).toEqual({ x: false, y: true });
  });
});
