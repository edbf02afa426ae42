import { describe, expect, test } from "@jest/globals";
import { referenceOptimum } from "../../../tests/support/lp-reference";
import { factorise, solveFactorised, STRIDE } from "./banded-cholesky";
import { axisProgram, solveAxis } from "./solve-axis";
import { MANNER_WEIGHTS, MANNERS } from "./manner";

/** A subject that rests, walks, rests and turns back, with the jitter of a detector. */
function goals(count: number) {
  const wanted = Float64Array.from({ length: count }, (_, t) => {
    const u = t / count;
    const place = u < 0.25 ? 400 : u < 0.5 ? 400 + (u - 0.25) * 3600 : u < 0.8 ? 1300 : 1300 - (u - 0.8) * 2000;
    return place + 9 * Math.sin(t * 1.7) + 5 * Math.sin(t * 0.9);
  });
  const nothing = new Float64Array(count).fill(Number.NaN);
  return {
    wanted,
    insideLower: wanted.map((value) => value - 190),
    insideUpper: wanted.map((value) => value + 190),
    bodyLower: nothing,
    bodyUpper: nothing,
    protectLower: nothing,
    protectUpper: nothing,
  };
}

const problem = (count: number, manner: (typeof MANNERS)[number], fixed = new Map<number, number>()) => ({
  goals: goals(count),
  windowLength: 607.5,
  bounds: [new Float64Array(count).fill(303.75), new Float64Array(count).fill(1616.25)] as const,
  fixed,
  fps: 30,
  weights: MANNER_WEIGHTS[manner],
});

test("banded Cholesky solves a system", () => {
  const size = 12;
  const matrix = new Float64Array(size * STRIDE);
  const dense = Array.from({ length: size }, () => new Array<number>(size).fill(0));
  for (let i = 0; i < size; i++) {
    for (let k = 0; k < STRIDE && k <= i; k++) {
      const value = k === 0 ? 9 + i : Math.sin(i * 3 + k);
      matrix[i * STRIDE + k] = value;
      dense[i]![i - k] = dense[i - k]![i] = value;
    }
  }
  const x = Float64Array.from({ length: size }, (_, i) => Math.cos(i));
  const rhs = Float64Array.from(dense, (row) => row.reduce((sum, value, j) => sum + value * x[j]!, 0));
  factorise(matrix, size);
  solveFactorised(matrix, size, rhs);
  rhs.forEach((value, i) => expect(value).toBeCloseTo(x[i]!, 10));
});

describe("the path of one coordinate", () => {
  test.each(MANNERS)("in %s is as good as the general solver's optimum", async (manner) => {
    const asked = problem(90, manner);
    const { solution } = solveAxis(asked);
    const { objective: optimum } = await referenceOptimum(axisProgram(asked));
    expect(solution!.objective).toBeLessThanOrEqual(optimum * 1.001 + 1e-9);
    expect(solution!.objective).toBeGreaterThanOrEqual(optimum * 0.999 - 1e-9);
  });

  test("stays inside the picture and under the limits", () => {
    const { positions } = solveAxis(problem(300, "glide"));
    const { maxSpeed, maxAcceleration } = MANNER_WEIGHTS.glide;
    positions.forEach((x, t) => {
      expect(x).toBeGreaterThanOrEqual(303.75);
      expect(x).toBeLessThanOrEqual(1616.25);
      if (t > 0) expect(Math.abs(x - positions[t - 1]!) / 607.5).toBeLessThanOrEqual(maxSpeed / 30 + 1e-5);
      if (t > 1) {
        const change = x - 2 * positions[t - 1]! + positions[t - 2]!;
        expect(Math.abs(change) / 607.5).toBeLessThanOrEqual(maxAcceleration / 900 + 1e-5);
      }
    });
  });
});
