/** The rows of a piecewise-linear program in the form that the interior-point method needs. */
import { STRIDE } from "./banded-cholesky";
import { type PiecewiseLinearProgram, type Term, weightAt } from "./piecewise-linear-program";

/**
 * Rows with the same coefficients, each at a cost of `weight` per unit by which sign · z exceeds `bound`. Their slacks and
 * multipliers are the elements `offset` to `offset + count` of the method's vectors.
 */
export interface RowGroup {
  offset: number;
  count: number;
  sign: 1 | -1;
  /** First unknown of each row. */
  at: Int32Array;
  bound: Float64Array;
  weight: Float64Array;
  /** Whether the bounds are hard: all weights are infinite, otherwise none is. */
  isHard: boolean;
  /** Coefficients, padded with zeros to the band's width. */
  stencil: readonly [number, number, number, number];
  width: number;
  /** Contribution of a row of stiffness 1 to the banded matrix: places after that of its first unknown, and amounts. */
  places: Int32Array;
  products: Float64Array;
}

export interface ProgramRows {
  groups: RowGroup[];
  count: number;
  /** A linear cost of each unknown, and a constant one, which remain of two-sided norms. */
  gradient: Float64Array;
  constant: number;
}

/** Side of a term's rows; a norm counts as one side of twice the weight, less a linear part. */
type Side = "above" | "below" | "norm";

const isNorm = ({ lower, upper, below, above }: Term): boolean =>
  lower === upper && below === above && below !== Infinity;

function groupOf(program: PiecewiseLinearProgram, term: Term, side: Side, offset: number): RowGroup {
  const { stencil, first } = term;
  const weights = side === "below" ? term.below : term.above;
  const bounds = side === "below" ? term.lower : term.upper;
  const sign = side === "below" ? -1 : 1;
  const at: number[] = [];
  const bound: number[] = [];
  const weight: number[] = [];
  for (let r = 0; r < bounds.length; r++) {
    const w = weightAt(weights, r);
    const b = sign * bounds[r]!;
    if (w <= 0 || b === Infinity) continue;
    if (program.fixed.size > 0 && stencil.every((_, k) => program.fixed.has(first + r + k))) continue;
    at.push(first + r);
    bound.push(b);
    weight.push(side === "norm" ? 2 * w : w);
  }
  const places: number[] = [];
  const products: number[] = [];
  for (let a = 0; a < stencil.length; a++) {
    for (let b = 0; b <= a; b++) {
      places.push(a * STRIDE + a - b);
      products.push(stencil[a]! * stencil[b]!);
    }
  }
  const [c0, c1 = 0, c2 = 0, c3 = 0] = stencil;
  return {
    offset,
    count: at.length,
    sign,
    at: Int32Array.from(at),
    bound: Float64Array.from(bound),
    weight: Float64Array.from(weight),
    isHard: weight[0] === Infinity,
    stencil: [c0!, c1, c2, c3],
    width: stencil.length,
    places: Int32Array.from(places),
    products: Float64Array.from(products),
  };
}

/** Collects the rows that matter: those with a weight, except those that only bind fixed unknowns. */
export function collectRows(program: PiecewiseLinearProgram): ProgramRows {
  const groups: RowGroup[] = [];
  const gradient = new Float64Array(program.size + STRIDE);
  let count = 0;
  let constant = 0;
  for (const term of program.terms) {
    const sides: Side[] = isNorm(term) ? ["norm"] : ["above", "below"];
    for (const side of sides) {
      const group = groupOf(program, term, side, count);
      if (group.count === 0) continue;
      groups.push(group);
      count += group.count;
      if (side !== "norm") continue;
      // w · |z − b| = 2 w · max(0, z − b) − w · (z − b)
      for (let i = 0; i < group.count; i++) {
        const cost = -group.weight[i]! / 2;
        constant -= cost * group.bound[i]!;
        term.stencil.forEach((c, k) => (gradient[group.at[i]! + k]! += cost * c));
      }
    }
  }
  return { groups, count, gradient, constant };
}
