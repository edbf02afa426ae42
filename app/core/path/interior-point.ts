/**
 * A primal-dual interior-point method with Mehrotra's predictor-corrector for piecewise-linear programs, in the form
 * that bounds the multipliers by the weights and so needs no slack unknowns (Portnoy and Koenker, "The Gaussian hare
 * and the Laplacian tortoise", 1997). Each step factorises one banded matrix: time is linear in the number of unknowns.
 */
import { BANDWIDTH, factorise, solveFactorised, STRIDE } from "./banded-cholesky";
import type { PiecewiseLinearProgram } from "./piecewise-linear-program";
import { collectRows, type ProgramRows, type RowGroup } from "./program-rows";

/** Share of the way to the boundary that a step may go. */
const STEP = 0.99;
/** Slacks and multipliers are kept this far off zero. */
const TINY = 1e-14;

/** sign · z − bound of a row, z from a padded vector. */
function excessOf({ stencil, at, bound, sign }: RowGroup, i: number, v: Float64Array): number {
  const k = at[i]!;
  const z = stencil[0] * v[k]! + stencil[1] * v[k + 1]! + stencil[2] * v[k + 2]! + stencil[3] * v[k + 3]!;
  return sign * z - bound[i]!;
}

/**
 * Each row is sign · z ≤ bound + s − r with slack r ≥ 0 and excess s ≥ 0, multiplier λ of r, and weight − λ of s; a row
 * of infinite weight has no excess.
 */
export class InteriorPoint {
  private readonly rows: ProgramRows;
  private readonly r: Float64Array;
  private readonly s: Float64Array;
  private readonly lambda: Float64Array;
  private readonly dr: Float64Array;
  private readonly ds: Float64Array;
  private readonly dLambda: Float64Array;
  /** Right-hand sides of the complementarity conditions λ r = τ and (weight − λ) s = τ. */
  private readonly c1: Float64Array;
  private readonly c2: Float64Array;
  /** 1 / λ and 1 / (weight − λ), which is 0 where the weight is infinite. */
  private readonly perLambda: Float64Array;
  private readonly perRest: Float64Array;
  /** 1 / (r/λ + s/(weight − λ)): how stiff a row is in the normal equations. */
  private readonly stiffness: Float64Array;
  /** What the right-hand sides ask of a row. */
  private readonly push: Float64Array;
  private readonly factor: Float64Array;
  /** Padded by the bandwidth, so that forms near the end read zeros. */
  private readonly dx: Float64Array;

  /** @param x where to begin, inside the hard constraints; changed with every step */
  constructor(
    private readonly program: PiecewiseLinearProgram,
    readonly x: Float64Array,
  ) {
    this.rows = collectRows(program);
    const vector = () => new Float64Array(this.rows.count);
    [this.r, this.s, this.lambda] = [vector(), vector(), vector()];
    [this.dr, this.ds, this.dLambda] = [vector(), vector(), vector()];
    [this.c1, this.c2, this.stiffness, this.push] = [vector(), vector(), vector(), vector()];
    [this.perLambda, this.perRest] = [vector(), vector()];
    this.factor = new Float64Array((program.size + BANDWIDTH) * STRIDE);
    this.dx = new Float64Array(program.size + BANDWIDTH);
    this.dx.set(x);
    for (const group of this.rows.groups) this.begin(group);
  }

  private begin(group: RowGroup): void {
    for (let i = 0, k = group.offset; i < group.count; i++, k++) {
      const excess = excessOf(group, i, this.dx);
      if (group.weight[i] === Infinity) {
        // The start must satisfy hard constraints; the slack is kept off zero all the same.
        this.r[k] = Math.max(1e-6, -excess);
        this.lambda[k] = 1e-2;
      } else {
        this.s[k] = Math.max(0, excess) + 0.05 + 0.1 * Math.abs(excess);
        this.r[k] = this.s[k]! - excess;
        this.lambda[k] = group.weight[i]! / 2;
      }
    }
  }

  /** Sum of all complementarity products, which bounds the distance to the optimum, and their number. */
  gap(): { sum: number; pairs: number } {
    const { r, s, lambda } = this;
    let sum = 0;
    let pairs = 0;
    for (const { offset, count, weight } of this.rows.groups) {
      for (let i = 0, k = offset; i < count; i++, k++) {
        sum += r[k]! * lambda[k]!;
        pairs++;
        if (weight[i] === Infinity) continue;
        sum += s[k]! * (weight[i]! - lambda[k]!);
        pairs++;
      }
    }
    return { sum, pairs };
  }

  /** The objective at x with the excesses as they stand, which are never less than what they come to. */
  objectiveBound(): number {
    const { rows, x, s } = this;
    let sum = rows.constant;
    for (let i = 0; i < x.length; i++) sum += rows.gradient[i]! * x[i]!;
    for (const { offset, count, weight } of rows.groups) {
      for (let i = 0, k = offset; i < count; i++, k++) if (weight[i] !== Infinity) sum += weight[i]! * s[k]!;
    }
    return sum;
  }

  private assemble(): void {
    const { program, factor, stiffness, r, s, lambda, perLambda, perRest } = this;
    factor.fill(0);
    for (const { offset, count, at, weight, places, products } of this.rows.groups) {
      const entries = places.length;
      for (let i = 0, k = offset; i < count; i++, k++) {
        perLambda[k] = 1 / lambda[k]!;
        perRest[k] = 1 / (weight[i]! - lambda[k]!);
        const d = 1 / (r[k]! * perLambda[k]! + s[k]! * perRest[k]!);
        stiffness[k] = d;
        const first = at[i]! * STRIDE;
        for (let e = 0; e < entries; e++) factor[first + places[e]!]! += d * products[e]!;
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
    const { program, rows, r, s, lambda, perLambda, perRest, dr, ds, dLambda, c1, c2, dx, stiffness, push } = this;
    for (let i = 0; i < dx.length; i++) dx[i] = -rows.gradient[i]!;
    for (const { offset, count, at, sign, stencil, width } of rows.groups) {
      const [s0, s1, s2, s3] = stencil;
      for (let i = 0, k = offset; i < count; i++, k++) {
        const pushed = c1[k]! * perLambda[k]! - c2[k]! * perRest[k]!;
        push[k] = pushed;
        const value = -sign * (lambda[k]! + stiffness[k]! * pushed);
        const first = at[i]!;
        dx[first]! += s0 * value;
        if (width === 1) continue;
        dx[first + 1]! += s1 * value;
        if (width === 2) continue;
        dx[first + 2]! += s2 * value;
        dx[first + 3]! += s3 * value;
      }
    }
    for (const index of program.fixed.keys()) dx[index] = 0;
    dx.fill(0, program.size);
    solveFactorised(this.factor, program.size, dx);
    for (const { offset, count, at, sign, stencil, width } of rows.groups) {
      const [s0, s1, s2, s3] = stencil;
      for (let i = 0, k = offset; i < count; i++, k++) {
        const first = at[i]!;
        let z = s0 * dx[first]!;
        if (width > 1) z += s1 * dx[first + 1]!;
        if (width > 2) z += s2 * dx[first + 2]! + s3 * dx[first + 3]!;
        const change = stiffness[k]! * (sign * z + push[k]!);
        dLambda[k] = change;
        dr[k] = (c1[k]! - r[k]! * change) * perLambda[k]!;
        ds[k] = (c2[k]! + s[k]! * change) * perRest[k]!;
      }
    }
  }

  /** Longest primal and dual steps that keep everything positive. */
  private stepLengths(): { primal: number; dual: number } {
    const { r, s, lambda, dr, ds, dLambda } = this;
    let primal = 1 / STEP;
    let dual = 1 / STEP;
    for (const { offset, count, weight } of this.rows.groups) {
      for (let i = 0, k = offset; i < count; i++, k++) {
        const change = dLambda[k]!;
        if (dr[k]! < 0) primal = Math.min(primal, -r[k]! / dr[k]!);
        if (ds[k]! < 0) primal = Math.min(primal, -s[k]! / ds[k]!);
        if (change < 0) dual = Math.min(dual, -lambda[k]! / change);
        else if (change > 0) dual = Math.min(dual, (weight[i]! - lambda[k]!) / change);
      }
    }
    return { primal: Math.min(1, STEP * primal), dual: Math.min(1, STEP * dual) };
  }

  /** What is left of all products after so long a step. */
  private predictedGap(primal: number, dual: number): number {
    const { r, s, lambda, dr, ds, dLambda } = this;
    let sum = 0;
    for (const { offset, count, weight } of this.rows.groups) {
      for (let i = 0, k = offset; i < count; i++, k++) {
        const multiplier = lambda[k]! + dual * dLambda[k]!;
        sum += (r[k]! + primal * dr[k]!) * multiplier;
        if (weight[i] !== Infinity) sum += (s[k]! + primal * ds[k]!) * (weight[i]! - multiplier);
      }
    }
    return sum;
  }

  /** One predictor-corrector step (Mehrotra 1992). */
  step(): void {
    const { r, s, lambda, dr, ds, dLambda, c1, c2 } = this;
    const { groups } = this.rows;
    this.assemble();
    for (const { offset, count, weight } of groups) {
      for (let i = 0, k = offset; i < count; i++, k++) {
        c1[k] = -r[k]! * lambda[k]!;
        c2[k] = weight[i] === Infinity ? 0 : -s[k]! * (weight[i]! - lambda[k]!);
      }
    }
    this.direction();
    const { sum, pairs } = this.gap();
    const affine = this.stepLengths();
    const target = (sum / pairs) * Math.min(1, this.predictedGap(affine.primal, affine.dual) / sum) ** 3;
    for (const { offset, count, weight } of groups) {
      for (let i = 0, k = offset; i < count; i++, k++) {
        c1[k] = target - r[k]! * lambda[k]! - dr[k]! * dLambda[k]!;
        if (weight[i] !== Infinity) c2[k] = target - s[k]! * (weight[i]! - lambda[k]!) + ds[k]! * dLambda[k]!;
      }
    }
    this.direction();
    const { primal, dual } = this.stepLengths();
    for (let i = 0; i < this.x.length; i++) this.x[i]! += primal * this.dx[i]!;
    for (const { offset, count, weight } of groups) {
      for (let i = 0, k = offset; i < count; i++, k++) {
        r[k] = Math.max(TINY, r[k]! + primal * dr[k]!);
        lambda[k] = Math.max(TINY, lambda[k]! + dual * dLambda[k]!);
        if (weight[i] === Infinity) continue;
        s[k] = Math.max(TINY, s[k]! + primal * ds[k]!);
        lambda[k] = Math.min(weight[i]! * (1 - TINY), lambda[k]!);
      }
    }
  }
}
