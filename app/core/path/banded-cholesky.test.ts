import { describe, expect, test } from "@jest/globals";
import { BANDWIDTH, factorise, solveFactorised, STRIDE } from "./banded-cholesky";

/** A diagonally dominant band matrix and the product of it with a vector. */
function system(size: number) {
  const matrix = new Float64Array(size * STRIDE);
  for (let i = 0; i < size; i++) {
    for (let k = 0; k <= Math.min(BANDWIDTH, i); k++) {
      matrix[i * STRIDE + k] = k === 0 ? 8 + (i % 3) : Math.cos(i * 1.3 + k);
    }
  }
  const entry = (i: number, j: number) =>
    Math.abs(i - j) > BANDWIDTH ? 0 : matrix[Math.max(i, j) * STRIDE + Math.abs(i - j)]!;
  const times = (x: Float64Array) => x.map((_, i) => x.reduce((sum, value, j) => sum + entry(i, j) * value, 0));
  return { matrix, times };
}

describe("band systems", () => {
  test("are solved exactly, at any size from one", () => {
    for (const size of [1, 2, 3, 4, 9, 40]) {
      const { matrix, times } = system(size);
      const wanted = Float64Array.from({ length: size }, (_, i) => Math.sin(i * 2.1) + 0.3);
      const rhs = times(wanted);
      factorise(matrix, size);
      solveFactorised(matrix, size, rhs);
      rhs.forEach((value, i) => expect(value).toBeCloseTo(wanted[i]!, 10));
    }
  });

  test("a singular one does not blow up", () => {
    const matrix = new Float64Array(4 * STRIDE);
    matrix[0] = 1;
    factorise(matrix, 4);
    expect([...matrix].every(Number.isFinite)).toBe(true);
  });
});
