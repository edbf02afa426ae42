/**
 * Minimises a sum of weighted distances of short linear forms from intervals:
 *
 *   minimise  Σᵢ  above · max(0, zᵢ − upperᵢ) + below · max(0, lowerᵢ − zᵢ),   z = A x
 *
 * where each zᵢ involves up to four neighbouring unknowns. With lower = upper = 0 a term is a weighted L1 norm
 * (of a velocity, say); with an interval it is a soft constraint; with infinite weight a hard one. It is a linear
 * program with a banded structure.
 */

/** Rows of A with the same coefficients: row r reads the unknowns from `first + r` on. */
export interface Term {
  /** One to four coefficients. */
  stencil: readonly number[];
  first: number;
  lower: Float64Array;
  /** The same array as `lower` for a norm. */
  upper: Float64Array;
  /** Cost per unit below `lower`; Infinity, for all rows alike, forbids it; 0 leaves that side open. */
  below: number | Float64Array;
  /** Cost per unit above `upper`. */
  above: number | Float64Array;
}

export interface PiecewiseLinearProgram {
  size: number;
  terms: Term[];
  /** Unknowns with a given value. */
  fixed: ReadonlyMap<number, number>;
}

export const weightAt = (weight: number | Float64Array, row: number): number =>
  typeof weight === "number" ? weight : weight[row]!;

/** Calls back with the value of each row's linear form. */
function eachForm(term: Term, x: Float64Array, use: (row: number, z: number) => void): void {
  const { stencil, first, lower } = term;
  for (let r = 0; r < lower.length; r++) {
    let z = 0;
    for (let k = 0; k < stencil.length; k++) z += stencil[k]! * x[first + r + k]!;
    use(r, z);
  }
}

/** The objective at x, without hard constraints. */
export function objectiveAt(program: PiecewiseLinearProgram, x: Float64Array): number {
  let total = 0;
  for (const term of program.terms) {
    eachForm(term, x, (r, z) => {
      const over = z - term.upper[r]!;
      const under = term.lower[r]! - z;
      const up = weightAt(term.above, r);
      const down = weightAt(term.below, r);
      if (over > 0 && up < Infinity) total += up * over;
      if (under > 0 && down < Infinity) total += down * under;
    });
  }
  return total;
}

/** Whether no weighted row of a term is outside its interval by more than a tolerance. */
export function isSatisfied(term: Term, x: Float64Array, tolerance: number): boolean {
  let satisfied = true;
  eachForm(term, x, (r, z) => {
    if (z > term.upper[r]! + tolerance && weightAt(term.above, r) > 0) satisfied = false;
    if (z < term.lower[r]! - tolerance && weightAt(term.below, r) > 0) satisfied = false;
  });
  return satisfied;
}
