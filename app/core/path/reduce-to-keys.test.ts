import { clamped } from "../numbers/clamped";
import { describe, expect, test } from "@jest/globals";
import { ease, isCurve } from "./easing";
import { withinTolerance } from "./key-bounds";
import { windowAt } from "./keys";
import { reduceToKeys } from "./reduce-to-keys";
import { seeded } from "../../../demo/film/random";

const TOLERANCE = 7;
const pathOf = (x: Float64Array, tolerance: number) => ({
  x: withinTolerance(x, tolerance),
  y: withinTolerance(new Float64Array(x.length).fill(540), tolerance),
  height: withinTolerance(new Float64Array(x.length).fill(1080), tolerance),
});
const keysOf = (x: Float64Array, tolerance = TOLERANCE) =>
  reduceToKeys(pathOf(x, tolerance), 1000, tolerance, new Set());
/** The greatest change of speed from one frame to the next. */
const hardest = (at: (t: number) => number, count: number) =>
  Math.max(...Array.from({ length: count - 2 }, (_, t) => Math.abs(at(t + 2) - 2 * at(t + 1) + at(t))));

describe("the keys of a path", () => {
  test("are few, and reproduce it within the tolerance", () => {
    const x = Float64Array.from({ length: 200 }, (_, t) => 600 + 300 * ease("ease", clamped((t - 50) / 80, 0, 1)));
    const keys = keysOf(x, 2);
    expect(keys).toHaveLength(3);
    x.forEach((value, t) => expect(Math.abs(windowAt(keys, 1000 + t).x - value)).toBeLessThanOrEqual(2.01));
  });

  test("are passed softly: no kinks where one way of going turns into another", () => {
    const x = Float64Array.from({ length: 121 }, (_, t) => 500 + 300 * Math.sin(t / 40));
    const keys = keysOf(x);
    expect(keys.length).toBeLessThanOrEqual(4);
    expect(hardest((t) => windowAt(keys, 1000 + t).x, x.length)).toBeLessThan(0.8);
  });

  test("are curves where a path comes from one speed to another", () => {
    // From a quick pan into a slow one, and never at rest.
    const x = Float64Array.from({ length: 121 }, (_, t) => 400 + (t < 40 ? 8 * t : 0.05 * (160 - t) * (t - 40) + 320));
    expect(keysOf(x).some(({ easing }) => isCurve(easing))).toBe(true);
  });

  test("never lead out of the path's bounds, whatever it does", () => {
    const random = seeded(7);
    for (let round = 0; round < 20; round++) {
      // Rests and moves of random lengths, with a tremble that no tolerance covers everywhere.
      let [speed, at, left] = [0, 900, 0];
      const x = Float64Array.from({ length: 200 }, () => {
        if (left-- <= 0) [speed, left] = [random() < 0.5 ? 0 : 8 * (random() - 0.5), Math.floor(10 + 50 * random())];
        at += speed;
        return at + 3 * (random() - 0.5);
      });
      const path = pathOf(x, TOLERANCE);
      // In some frames there is room to one side only.
      path.x.low = path.x.low.map((value, t) => (random() < 0.2 ? x[t]! : value));
      const keys = reduceToKeys(path, 1000, TOLERANCE, new Set());
      x.forEach((_, t) => {
        const led = windowAt(keys, 1000 + t).x;
        expect(led).toBeGreaterThanOrEqual(path.x.low[t]! - 1e-9);
        expect(led).toBeLessThanOrEqual(path.x.high[t]! + 1e-9);
      });
    }
  });

  test("where the window rests are one", () => {
    expect(keysOf(new Float64Array(90).fill(700))).toEqual([
      { frame: 1000, x: 700, y: 540, height: 1080, easing: "hold", by: "solver" },
    ]);
  });
});
