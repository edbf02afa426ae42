/**
 * A primal-dual interior-point method with Mehrotra's predictor-corrector for piecewise-linear programs, in the form
 * that bounds the multipliers by the weights and so needs no slack unknowns (Portnoy and Koenker, "The Gaussian hare
 * and the Laplacian tortoise", 1997). Each step factorises one banded matrix: time is linear in the number of unknowns.
 */
import { BANDWIDTH, factorise, solveFactorised, STRIDE } from "./banded-cholesky";
import type { PiecewiseLinearProgram } from "./piecewise-linear-program";
import { collectRows, type ProgramRows, type RowGroup } from "./program-rows";

/** Share of the distance to the boundary that a step may go. */
const STEP = 0.99;
/** Slacks and multipliers are kept this far above zero. */
const TINY = 1e-14;

/**
 * Each row is sign · z ≤ bound + s − r with slack r ≥ 0 and excess s ≥ 0, multiplier λ of r, and weight − λ of s; a hard
 * row has no excess. The vectors are traversed as rarely as possible: a program's rows do not fit the nearest cache.
 */
export class InteriorPoint {
  private readonly rows: ProgramRows;
  private readonly r: Float64Array;
  private readonly s: Float64Array;
  private readonly lambda: Float64Array;
  private readonly dr: Float64Array;
  private readonly ds: Float64Array;
  private readonly dLambda: Float64Array;
  /** 1 / λ and 1 / (weight − λ), which is 0 in a hard row. */
  private readonly perLambda: Float64Array;
  private readonly perRest: Float64Array;
  /** 1 / (r/λ + s/(weight − λ)): how stiff a row is in the normal equations. */
  private readonly stiffness: Float64Array;
  /** How r and s would change if λ stayed: the right-hand sides of λ r = τ and (weight − λ) s = τ. */
  private readonly q: Float64Array;
  private readonly p: Float64Array;
  private readonly factor: Float64Array;
  /** Padded by the bandwidth, so that forms near the end read zeros. */
  private readonly dx: Float64Array;
  private sums = { gap: 0, excess: 0 };
  /** Number of complementarity products. */
  private readonly pairs: number;

  /** @param x starting point, inside the hard constraints; changed with every step */
  constructor(
    private readonly program: PiecewiseLinearProgram,
    readonly x: Float64Array,
  ) {
    this.rows = collectRows(program);
    const vector = () => new Float64Array(this.rows.count);
    [this.r, this.s, this.lambda] = [vector(), vector(), vector()];
    [this.dr, this.ds, this.dLambda] = [vector(), vector(), vector()];
    [this.q, this.p, this.stiffness] = [vector(), vector(), vector()];
    [this.perLambda, this.perRest] = [vector(), vector()];
    this.factor = new Float64Array((program.size + BANDWIDTH) * STRIDE);
    this.dx = new Float64Array(program.size + BANDWIDTH);
    this.dx.set(x);
    for (const group of this.rows.groups) this.begin(group);
    this.pairs = this.rows.groups.reduce((sum, { count, isHard }) => sum + (isHard ? 1 : 2) * count, 0);
    this.move(0, 0);
  }

  private begin({ offset, count, at, bound, weight, sign, stencil, isHard }: RowGroup): void {
    const { dx, r, s, lambda } = this;
    for (let i = 0, k = offset; i < count; i++, k++) {
      let z = 0;
      for (let c = 0; c < stencil.length; c++) z += stencil[c]! * dx[at[i]! + c]!;
      const excess = sign * z - bound[i]!;
      if (isHard) {
        // The start must satisfy hard constraints; the slack is kept above zero all the same.
        r[k] = Math.max(1e-6, -excess);
        lambda[k] = 1e-2;
      } else {
        s[k] = Math.max(0, excess) + 0.05 + 0.1 * Math.abs(excess);
        r[k] = s[k]! - excess;
        lambda[k] = weight[i]! / 2;
      }
    }
  }

  /** Sum of all complementarity products, which bounds the distance to the optimum. */
  get gap(): number {
    return this.sums.gap;
  }

  /** Upper bound of the objective at x, from the present excesses; without constants. */
  objectiveBound(): number {
    const { rows, x } = this;
    let sum = rows.constant + this.sums.excess;
    for (let i = 0; i < x.length; i++) sum += rows.gradient[i]! * x[i]!;
    return sum;
  }

  /** The normal equations at the present point, and in dx the right-hand side of the affine step. */
  private linearise(): void {
    const { program, rows, factor, stiffness, r, s, lambda, perLambda, perRest, q, p, dx } = this;
    factor.fill(0);
    for (let i = 0; i < dx.length; i++) dx[i] = -rows.gradient[i]!;
    for (const { offset, count, at, weight, sign, stencil, width, isHard, places, products } of rows.groups) {
      const entries = places.length;
      const [s0, s1, s2, s3] = stencil;
      for (let i = 0, k = offset; i < count; i++, k++) {
        const multiplier = lambda[k]!;
        const perL = 1 / multiplier;
        const perR = isHard ? 0 : 1 / (weight[i]! - multiplier);
        const d = 1 / (r[k]! * perL + s[k]! * perR);
        perLambda[k] = perL;
        perRest[k] = perR;
        stiffness[k] = d;
        q[k] = -r[k]!;
        p[k] = -s[k]!;
        const first = at[i]!;
        const row = first * STRIDE;
        factor[row]! += d * products[0]!;
        for (let e = 1; e < entries; e++) factor[row + places[e]!]! += d * products[e]!;
        const value = -sign * (multiplier + d * (s[k]! - r[k]!));
        dx[first]! += s0 * value;
        if (width === 1) continue;
        dx[first + 1]! += s1 * value;
        dx[first + 2]! += s2 * value;
        dx[first + 3]! += s3 * value;
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

  /**
   * In dx the right-hand side of the step towards products of `target`, corrected by the second-order error of the last
   * direction.
   */
  private correct(target: number): void {
    const { rows, r, s, lambda, dr, ds, dLambda, perLambda, perRest, stiffness, q, p, dx } = this;
    for (let i = 0; i < dx.length; i++) dx[i] = -rows.gradient[i]!;
    for (const { offset, count, at, sign, stencil, width } of rows.groups) {
      const [s0, s1, s2, s3] = stencil;
      for (let i = 0, k = offset; i < count; i++, k++) {
        const change = dLambda[k]!;
        const ofR = (target - dr[k]! * change) * perLambda[k]! - r[k]!;
        const ofS = (target + ds[k]! * change) * perRest[k]! - s[k]!;
        q[k] = ofR;
        p[k] = ofS;
        const value = -sign * (lambda[k]! + stiffness[k]! * (ofR - ofS));
        const first = at[i]!;
        dx[first]! += s0 * value;
        if (width === 1) continue;
        dx[first + 1]! += s1 * value;
        dx[first + 2]! += s2 * value;
        dx[first + 3]! += s3 * value;
      }
    }
  }

  /** Newton's direction for the right-hand side in dx; the permitted step lengths, and the gap that would remain. */
  private direction(): { primal: number; dual: number; gap: number } {
    const { program, rows, r, s, lambda, perLambda, perRest, dr, ds, dLambda, q, p, dx, stiffness } = this;
    for (const index of program.fixed.keys()) dx[index] = 0;
    dx.fill(0, program.size);
    solveFactorised(this.factor, program.size, dx);
    // The longest steps that keep everything positive; divided only where one shortens them.
    let [primal, dual] = [1 / STEP, 1 / STEP];
    let [ofPrimal, ofDual, ofBoth] = [0, 0, 0];
    for (const { offset, count, at, weight, sign, stencil, width, isHard } of rows.groups) {
      const [s0, s1, s2, s3] = stencil;
      for (let i = 0, k = offset; i < count; i++, k++) {
        const first = at[i]!;
        let z = s0 * dx[first]!;
        if (width > 1) z += s1 * dx[first + 1]! + s2 * dx[first + 2]! + s3 * dx[first + 3]!;
        const multiplier = lambda[k]!;
        const change = stiffness[k]! * (sign * z + q[k]! - p[k]!);
        const slack = r[k]!;
        const slackChange = q[k]! - slack * perLambda[k]! * change;
        dLambda[k] = change;
        dr[k] = slackChange;
        if (slack + primal * slackChange < 0) primal = -slack / slackChange;
        if (multiplier + dual * change < 0) dual = -multiplier / change;
        ofPrimal += slackChange * multiplier;
        ofDual += slack * change;
        ofBoth += slackChange * change;
        if (isHard) continue;
        const excess = s[k]!;
        const excessChange = p[k]! + excess * perRest[k]! * change;
        const rest = weight[i]! - multiplier;
        ds[k] = excessChange;
        if (excess + primal * excessChange < 0) primal = -excess / excessChange;
        if (rest - dual * change < 0) dual = rest / change;
        ofPrimal += excessChange * rest;
        ofDual -= excess * change;
        ofBoth -= excessChange * change;
      }
    }
    [primal, dual] = [Math.min(1, STEP * primal), Math.min(1, STEP * dual)];
    return { primal, dual, gap: this.gap + primal * ofPrimal + dual * ofDual + primal * dual * ofBoth };
  }

  /** Moves along the direction, and sums up the new point's complementarity. */
  private move(primal: number, dual: number): void {
    const { rows, x, dx, r, s, lambda, dr, ds, dLambda } = this;
    for (let i = 0; i < x.length; i++) x[i]! += primal * dx[i]!;
    let [gap, excess] = [0, 0];
    for (const { offset, count, weight, isHard } of rows.groups) {
      for (let i = 0, k = offset; i < count; i++, k++) {
        const slack = Math.max(TINY, r[k]! + primal * dr[k]!);
        let multiplier = Math.max(TINY, lambda[k]! + dual * dLambda[k]!);
        r[k] = slack;
        if (!isHard) {
          const cost = weight[i]!;
          const over = Math.max(TINY, s[k]! + primal * ds[k]!);
          multiplier = Math.min(cost * (1 - TINY), multiplier);
          s[k] = over;
          gap += over * (cost - multiplier);
          excess += over * cost;
        }
        lambda[k] = multiplier;
        gap += slack * multiplier;
      }
    }
    this.sums = { gap, excess };
  }

  /** One predictor-corrector step (Mehrotra 1992). */
  step(): void {
    this.linearise();
    const predicted = this.direction();
    this.correct((this.gap / this.pairs) * Math.min(1, predicted.gap / this.gap) ** 3);
    const { primal, dual } = this.direction();
    this.move(primal, dual);
  }
}
