import { describe, expect, test } from "@jest/globals";
import { seeded } from "../../../demo/film/random";
import { bestPlace } from "./best-place";
import { objectiveAt, type Term } from "./piecewise-linear-program";

const ANYWHERE = [-1e9, 1e9] as const;
const term = (lower: number[], upper: number[], below: number, above = below): Term => ({
  stencil: [1],
  first: 0,
  lower: Float64Array.from(lower),
  upper: Float64Array.from(upper),
  below,
  above,
});
const norm = (values: number[], weight: number) => term(values, values, weight);

describe("the best place", () => {
  test("for distances alone is the median, however far the farthest", () => {
    expect(bestPlace([norm([3, 1, 2, 900, 2.5], 1)], ANYWHERE)).toBe(2.5);
  });

  test("is where an interval that counts for more allows it", () => {
    expect(bestPlace([norm([5], 1), term([7], [9], 10)], ANYWHERE)).toBe(7);
    expect(bestPlace([norm([12], 1), term([7], [9], 10)], ANYWHERE)).toBe(9);
    expect(bestPlace([norm([8], 1), term([7], [9], 10)], ANYWHERE)).toBe(8);
  });

  test("stays within its limits, and in their middle where nothing is wanted", () => {
    expect(bestPlace([norm([5], 1)], [6, 8])).toBe(6);
    expect(bestPlace([norm([9], 1)], [6, 8])).toBe(8);
    expect(bestPlace([], [6, 8])).toBe(7);
  });

  test("costs no more than any other place", () => {
    const random = seeded(5);
    for (let round = 0; round < 50; round++) {
      const size = 1 + Math.floor(20 * random());
      const values = () => Array.from({ length: size }, () => 10 * random());
      const lower = values();
      const upper = lower.map((value) => value + 3 * random());
      const costs = [norm(values(), 0.3 * random()), term(lower, upper, 2 * random(), 2 * random())];
      const costAt = (x: number) =>
        objectiveAt({ size, terms: costs, fixed: new Map() }, new Float64Array(size).fill(x));
      const least = costAt(bestPlace(costs, [0, 13]));
      for (let x = 0; x <= 13; x += 0.05) expect(costAt(x)).toBeGreaterThanOrEqual(least - 1e-9);
    }
  });
});
