import { describe, expect, test } from "@jest/globals";
import { referenceOptimum } from "../../../tests/support/lp-reference";
import { seeded } from "../../../demo/film/random";
import { InteriorPoint } from "./interior-point";
import { isSatisfied, objectiveAt, type PiecewiseLinearProgram, type Term } from "./piecewise-linear-program";
import { collectRows } from "./program-rows";
import { solveProgram } from "./solve-program";

const term = (stencil: number[], lower: number[], upper: number[], below: number, above = below): Term => ({
  stencil,
  first: 0,
  lower: Float64Array.from(lower),
  upper: Float64Array.from(upper),
  below,
  above,
});
/** A weighted L1 norm of a linear form. */
function norm(stencil: number[], values: number[], weight: number): Term {
  const at = Float64Array.from(values);
  return { stencil, first: 0, lower: at, upper: at, below: weight, above: weight };
}

/** Places, differences and limits as chance has them, with a start that the limits allow. */
function anyProgram(seed: number): { program: PiecewiseLinearProgram; start: Float64Array } {
  const random = seeded(seed);
  const size = 6 + Math.floor(30 * random());
  const many = (count: number, scale: number) => Array.from({ length: count }, () => scale * random());
  const lower = many(size, 4);
  const program = {
    size,
    terms: [
      norm([1], many(size, 5), random()),
      norm([-1, 1], new Array<number>(size - 1).fill(0), 2 * random()),
      norm([1, -2, 1], new Array<number>(size - 2).fill(0), 3 * random()),
      norm([-1, 3, -3, 1], new Array<number>(size - 3).fill(0), 3 * random()),
      term(
        [1],
        lower,
        lower.map((value) => value + random()),
        5 * random(),
        5 * random(),
      ),
      term([1], new Array<number>(size).fill(1), new Array<number>(size).fill(4), Infinity),
    ],
    fixed: new Map([[Math.floor(size * random()), 2]]),
  };
  return { program, start: new Float64Array(size).fill(2.5) };
}
const SEEDS = [1, 2, 3, 4, 5, 6];

describe("the objective", () => {
  const program: PiecewiseLinearProgram = {
    size: 3,
    terms: [
      term([1], [1, 1, 1], [2, 2, 2], 10, 1),
      norm([-1, 1], [0, 0], 3),
      term([1], [0, 0, 0], [9, 9, 9], Infinity),
    ],
    fixed: new Map(),
  };

  test("counts what is below and above an interval at its own cost, and hard constraints not at all", () => {
    expect(objectiveAt(program, Float64Array.from([1.5, 1.5, 1.5]))).toBe(0);
    expect(objectiveAt(program, Float64Array.from([0.5, 0.5, 0.5]))).toBe(15);
    expect(objectiveAt(program, Float64Array.from([4, 4, 4]))).toBe(6);
    expect(objectiveAt(program, Float64Array.from([1, 2, 1]))).toBe(6);
    expect(objectiveAt(program, Float64Array.from([-1, -1, -1]))).toBe(60);
  });

  test("a term is kept within a tolerance, where it has a weight", () => {
    const [, , limit] = program.terms;
    expect(isSatisfied(limit!, Float64Array.from([0, 5, 9]), 0)).toBe(true);
    expect(isSatisfied(limit!, Float64Array.from([0, 5, 9.1]), 0.05)).toBe(false);
    expect(isSatisfied(limit!, Float64Array.from([0, 5, 9.1]), 0.2)).toBe(true);
    const oneSided = term([1], [0, 0, 0], [9, 9, 9], 0, 1);
    expect(isSatisfied(oneSided, Float64Array.from([-5, 5, 9]), 0)).toBe(true);
  });
});

describe("the rows of a program", () => {
  test("come to the same cost as its terms, wherever the unknowns are", () => {
    for (const seed of SEEDS) {
      const { program } = anyProgram(seed);
      const { groups, gradient, constant } = collectRows({ ...program, fixed: new Map() });
      const random = seeded(100 + seed);
      const x = Float64Array.from({ length: program.size }, () => 6 * random() - 1);
      let cost = x.reduce((sum, value, i) => sum + gradient[i]! * value, constant);
      for (const { isHard, at, bound, weight, sign, stencil } of groups) {
        if (isHard) continue;
        at.forEach((first, i) => {
          const form = stencil.reduce((sum, c, k) => sum + c * (x[first + k] ?? 0), 0);
          cost += weight[i]! * Math.max(0, sign * form - bound[i]!);
        });
      }
      expect(cost).toBeCloseTo(objectiveAt(program, x), 9);
    }
  });

  test("leave out what has no weight and what only given unknowns are in", () => {
    const terms = [norm([1], [1, 2, 3], 1), term([1], [0, 0, 0], [1, 1, 1], 0, 2)];
    const rows = collectRows({ size: 3, terms, fixed: new Map([[1, 5]]) });
    expect(rows.groups.map(({ count }) => count)).toEqual([2, 2]);
    expect(rows.groups.map(({ at }) => [...at])).toEqual([
      [0, 2],
      [0, 2],
    ]);
    expect(rows.count).toBe(4);
  });
});

describe("the solver", () => {
  test.each(SEEDS)("finds the general solver's optimum of any program of its kind (%i)", async (seed) => {
    const { program, start } = anyProgram(seed);
    const { x, objective, relativeGap } = solveProgram(program, start);
    const { objective: optimum } = await referenceOptimum(program);
    expect(objective).toBeLessThanOrEqual(optimum * 1.0002 + 1e-5);
    expect(objective).toBeGreaterThanOrEqual(optimum * 0.9998 - 1e-5);
    expect(relativeGap).toBeLessThanOrEqual(1e-4);
    for (const [index, value] of program.fixed) expect(x[index]).toBe(value);
    for (const value of x) {
      expect(value).toBeGreaterThanOrEqual(1 - 1e-9);
      expect(value).toBeLessThanOrEqual(4 + 1e-9);
    }
  });

  test("knows at every step how far the optimum can be", async () => {
    const { program: withGiven, start: x } = anyProgram(3);
    const program = { ...withGiven, fixed: new Map<number, number>() };
    const { objective: optimum } = await referenceOptimum(program);
    const method = new InteriorPoint(program, x);
    let gap = method.gap;
    for (let i = 0; i < 12; i++) {
      expect(method.objectiveBound()).toBeGreaterThanOrEqual(objectiveAt(program, x) - 1e-9);
      method.step();
      expect(method.gap).toBeLessThan(gap);
      gap = method.gap;
    }
    expect(objectiveAt(program, x) - optimum).toBeLessThanOrEqual(gap + 1e-9);
  });
});
