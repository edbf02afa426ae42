/**
 * Minimises a sum of weighted distances of short linear forms from intervals:
 *
 *   minimise  Σᵢ  above · max(0, zᵢ − upperᵢ) + below · max(0, lowerᵢ − zᵢ),   z = A x
 *
 * where each zᵢ involves up to four neighbouring unknowns. With lower = upper = 0 a term is a weighted L1 norm
 * (of a velocity, say); with an interval it is a soft constraint; with infinite weight a hard one. It is a
 * linear program with a banded structure, solved by a primal-dual interior-point method with Mehrotra's
 * predictor-corrector, in the form that bounds the multipliers by the weights and so needs no slack unknowns
 * (Portnoy & Koenker, "The Gaussian hare and the Laplacian tortoise", 1997). Each iteration factorises one
 * banded matrix: time is linear in the number of unknowns.
 */
import { BANDWIDTH, factorise, solveFactorised, STRIDE } from "./banded-cholesky";

/** Rows of A with the same coefficients: row r reads the unknowns from `first + r` on. */
export interface Term {
  /** One to four coefficients. */
  stencil: readonly number[];
  first: number;
  lower: Float64Array;
  upper: Float64Array;
  /** Cost of a unit below `lower`; Infinity forbids it; 0 leaves that side open. */
  below: number | Float64Array;
  /** Cost of a unit above `upper`. */
  above: number | Float64Array;
}

export interface PiecewiseLinearProgram {
  size: number;
  terms: Term[];
  /** Unknowns that have a given value. */
  fixed: ReadonlyMap<number, number>;
}

export interface Solution {
  x: Float64Array;
  /** Value of the objective. */
  objective: number;
  iterations: number;
  /** Bound on how far the objective is from the optimum, relative to it. */
  relativeGap: number;
}

/** One side of one row: sign · z ≤ bound + s, with slack r ≥ 0, excess s ≥ 0, multiplier λ in [0, weight]. */
interface Sides {
  count: number;
  sign: Float64Array;
  bound: Float64Array;
  weight: Float64Array;
  /** First unknown of the linear form, and its coefficients, four to a side. */
  at: Int32Array;
  coefficients: Float64Array;
}

const MAX_ITERATIONS = 80;
const TOLERANCE = 1e-5;
/** Share of the way to the boundary that a step may go. */
const STEP = 0.99;

const weightAt = (weight: number | Float64Array, row: number): number =>
  typeof weight === "number" ? weight : weight[row]!;

/** Collects the sides that matter: those with a weight, and not those that only bind fixed unknowns. */
function collectSides(program: PiecewiseLinearProgram): Sides {
  const sign: number[] = [];
  const bound: number[] = [];
  const weight: number[] = [];
  const at: number[] = [];
  const coefficients: number[] = [];
  for (const t of program.terms) {
    for (let r = 0; r < t.lower.length; r++) {
      if (t.stencil.every((_, k) => program.fixed.has(t.first + r + k))) continue;
      const sides = [
        { w: weightAt(t.above, r), s: 1, b: t.upper[r]! },
        { w: weightAt(t.below, r), s: -1, b: -t.lower[r]! },
      ];
      for (const { w, s, b } of sides) {
        if (w <= 0 || b === Infinity) continue;
        sign.push(s);
        bound.push(b);
        weight.push(w);
        at.push(t.first + r);
        for (let k = 0; k < STRIDE; k++) coefficients.push(t.stencil[k] ?? 0);
      }
    }
  }
  return {
    count: sign.length,
    sign: Float64Array.from(sign),
    bound: Float64Array.from(bound),
    weight: Float64Array.from(weight),
    at: Int32Array.from(at),
    coefficients: Float64Array.from(coefficients),
  };
}

/** The objective at x; hard constraints do not count. */
export function objectiveAt(program: PiecewiseLinearProgram, x: Float64Array): number {
  let total = 0;
  for (const { stencil, first, lower, upper, below, above } of program.terms) {
    for (let r = 0; r < lower.length; r++) {
      let z = 0;
      for (let k = 0; k < stencil.length; k++) z += stencil[k]! * x[first + r + k]!;
      const over = z - upper[r]!;
      const under = lower[r]! - z;
      const up = weightAt(above, r);
      const down = weightAt(below, r);
      if (over > 0 && Number.isFinite(up)) total += up * over;
      if (under > 0 && Number.isFinite(down)) total += down * under;
    }
  }
  return total;
}

class InteriorPoint {
  private readonly sides: Sides;
  private readonly r: Float64Array;
  private readonly s: Float64Array;
  private readonly lambda: Float64Array;
  private readonly dr: Float64Array;
  private readonly ds: Float64Array;
  private readonly dLambda: Float64Array;
  /** Right-hand sides of the complementarity conditions λ r = τ and μ s = τ. */
  private readonly c1: Float64Array;
  private readonly c2: Float64Array;
  /** 1 / (r/λ + s/μ): how stiff a side is in the normal equations. */
  private readonly stiffness: Float64Array;
  private readonly factor: Float64Array;
  /** Padded by the bandwidth, so that forms near the end read zeros. */
  private readonly dx: Float64Array;

  constructor(
    private readonly program: PiecewiseLinearProgram,
    readonly x: Float64Array,
  ) {
    const sides = (this.sides = collectSides(program));
    const vector = () => new Float64Array(sides.count);
    [this.r, this.s, this.lambda] = [vector(), vector(), vector()];
    [this.dr, this.ds, this.dLambda] = [vector(), vector(), vector()];
    [this.c1, this.c2, this.stiffness] = [vector(), vector(), vector()];
    this.factor = new Float64Array((program.size + BANDWIDTH) * STRIDE);
    this.dx = new Float64Array(program.size + BANDWIDTH);
    this.dx.set(x);
    for (let i = 0; i < sides.count; i++) {
      const excess = sides.sign[i]! * this.form(i, this.dx) - sides.bound[i]!;
      if (sides.weight[i] === Infinity) {
        // The start must satisfy hard constraints; the slack is kept off zero all the same.
        this.r[i] = Math.max(1e-6, -excess);
        this.lambda[i] = 1e-2;
      } else {
        const room = 0.05 + 0.1 * Math.abs(excess);
        this.s[i] = Math.max(0, excess) + room;
        this.r[i] = this.s[i]! - excess;
        this.lambda[i] = sides.weight[i]! / 2;
      }
    }
  }

  /** Value of the linear form of side i for a padded vector. */
  private form(i: number, vector: Float64Array): number {
    const { at, coefficients } = this.sides;
    const first = at[i]!;
    const c = i * STRIDE;
    return (
      coefficients[c]! * vector[first]! +
      coefficients[c + 1]! * vector[first + 1]! +
      coefficients[c + 2]! * vector[first + 2]! +
      coefficients[c + 3]! * vector[first + 3]!
    );
  }

  /** Sum of all complementarity products, which bounds the distance to the optimum, and their number. */
  gap(): { sum: number; pairs: number } {
    const { sides, r, s, lambda } = this;
    let sum = 0;
    let pairs = 0;
    for (let i = 0; i < sides.count; i++) {
      sum += r[i]! * lambda[i]!;
      pairs++;
      if (sides.weight[i] !== Infinity) {
        sum += s[i]! * (sides.weight[i]! - lambda[i]!);
        pairs++;
      }
    }
    return { sum, pairs };
  }

  private assemble(): void {
    const { program, sides, factor, stiffness, r, s, lambda } = this;
    const { at, coefficients, weight } = sides;
    factor.fill(0);
    for (let i = 0; i < sides.count; i++) {
      const excess = weight[i] === Infinity ? 0 : s[i]! / (weight[i]! - lambda[i]!);
      const d = 1 / (r[i]! / lambda[i]! + excess);
      stiffness[i] = d;
      for (let a = 0, c = i * STRIDE; a < STRIDE; a++) {
        const da = d * coefficients[c + a]!;
        if (da === 0) continue;
        for (let b = 0; b <= a; b++) factor[(at[i]! + a) * STRIDE + a - b]! += da * coefficients[c + b]!;
      }
    }
    for (const index of program.fixed.keys()) {
      factor[index * STRIDE] = 1;
      for (let k = 1; k <= BANDWIDTH; k++) {
        factor[index * STRIDE + k] = 0;
        if (index + k < program.size) factor[(index + k) * STRIDE + k] = 0;
      }
    }
    for (let i = 0; i < program.size; i++) factor[i * STRIDE]! += 1e-11;
    factorise(factor, program.size);
  }

  /** Newton's direction for the current right-hand sides c1, c2. */
  private direction(): void {
    const { program, sides, r, s, lambda, dr, ds, dLambda, c1, c2, dx, stiffness } = this;
    dx.fill(0);
    for (let i = 0; i < sides.count; i++) {
      const mu = sides.weight[i]! - lambda[i]!;
      const push = c1[i]! / lambda[i]! - (mu === Infinity ? 0 : c2[i]! / mu);
      const value = -sides.sign[i]! * (lambda[i]! + stiffness[i]! * push);
      for (let k = 0, c = i * STRIDE; k < STRIDE; k++) dx[sides.at[i]! + k]! += sides.coefficients[c + k]! * value;
    }
    for (const index of program.fixed.keys()) dx[index] = 0;
    solveFactorised(this.factor, program.size, dx);
    for (let i = 0; i < sides.count; i++) {
      const mu = sides.weight[i]! - lambda[i]!;
      const push = c1[i]! / lambda[i]! - (mu === Infinity ? 0 : c2[i]! / mu);
      const change = stiffness[i]! * (sides.sign[i]! * this.form(i, dx) + push);
      dLambda[i] = change;
      dr[i] = (c1[i]! - r[i]! * change) / lambda[i]!;
      ds[i] = mu === Infinity ? 0 : (c2[i]! + s[i]! * change) / mu;
    }
  }

  /** Longest primal and dual steps that keep everything positive. */
  private stepLengths(): { primal: number; dual: number } {
    const { sides, r, s, lambda, dr, ds, dLambda } = this;
    let primal = 1 / STEP;
    let dual = 1 / STEP;
    for (let i = 0; i < sides.count; i++) {
      if (dr[i]! < 0) primal = Math.min(primal, -r[i]! / dr[i]!);
      if (dLambda[i]! < 0) dual = Math.min(dual, -lambda[i]! / dLambda[i]!);
      if (sides.weight[i] === Infinity) continue;
      if (ds[i]! < 0) primal = Math.min(primal, -s[i]! / ds[i]!);
      if (dLambda[i]! > 0) dual = Math.min(dual, (sides.weight[i]! - lambda[i]!) / dLambda[i]!);
    }
    return { primal: Math.min(1, STEP * primal), dual: Math.min(1, STEP * dual) };
  }

  /** One predictor-corrector step (Mehrotra 1992). */
  step(): void {
    const { sides, r, s, lambda, dr, ds, dLambda, c1, c2 } = this;
    this.assemble();
    for (let i = 0; i < sides.count; i++) {
      c1[i] = -r[i]! * lambda[i]!;
      c2[i] = sides.weight[i] === Infinity ? 0 : -s[i]! * (sides.weight[i]! - lambda[i]!);
    }
    this.direction();
    const { sum, pairs } = this.gap();
    const affine = this.stepLengths();
    let predicted = 0;
    for (let i = 0; i < sides.count; i++) {
      const multiplier = lambda[i]! + affine.dual * dLambda[i]!;
      predicted += (r[i]! + affine.primal * dr[i]!) * multiplier;
      if (sides.weight[i] !== Infinity) predicted += (s[i]! + affine.primal * ds[i]!) * (sides.weight[i]! - multiplier);
    }
    const target = (sum / pairs) * Math.min(1, predicted / sum) ** 3;
    for (let i = 0; i < sides.count; i++) {
      c1[i] = target - r[i]! * lambda[i]! - dr[i]! * dLambda[i]!;
      if (sides.weight[i] !== Infinity) c2[i] = target - s[i]! * (sides.weight[i]! - lambda[i]!) + ds[i]! * dLambda[i]!;
    }
    this.direction();
    const { primal, dual } = this.stepLengths();
    for (let i = 0; i < this.x.length; i++) this.x[i]! += primal * this.dx[i]!;
    for (let i = 0; i < sides.count; i++) {
      r[i] = Math.max(1e-14, r[i]! + primal * dr[i]!);
      lambda[i] = Math.max(1e-14, lambda[i]! + dual * dLambda[i]!);
      if (sides.weight[i] === Infinity) continue;
      s[i] = Math.max(1e-14, s[i]! + primal * ds[i]!);
      lambda[i] = Math.min(sides.weight[i]! * (1 - 1e-14), lambda[i]!);
    }
  }
}

/**
 * Solves the program from a start that satisfies its hard constraints (fixed unknowns are set to their values).
 * Stops when the objective is known to be within 1e-5 of the optimum, relatively.
 */
export function solveProgram(program: PiecewiseLinearProgram, start: Float64Array): Solution {
  const x = Float64Array.from(start);
  for (const [index, value] of program.fixed) x[index] = value;
  const method = new InteriorPoint(program, x);
  let iterations = 0;
  let relativeGap = Infinity;
  while (iterations < MAX_ITERATIONS) {
    relativeGap = method.gap().sum / (1e-6 + objectiveAt(program, x));
    if (relativeGap < TOLERANCE) break;
    method.step();
    iterations++;
  }
  return { x, objective: objectiveAt(program, x), iterations, relativeGap };
}
