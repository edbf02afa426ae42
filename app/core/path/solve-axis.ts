import { clamped } from "../numbers/clamped";
import { bestPlace } from "./best-place";
import { ease } from "./easing";
import type { AxisGoals } from "./framing-goals";
import { MOVEMENT_WEIGHTS, type MovementWeights } from "./movement";
import { isSatisfied, objectiveAt, type PiecewiseLinearProgram, type Term, weightAt } from "./piecewise-linear-program";
import { type Solution, solveProgram } from "./solve-program";

/** Weight of the limits on speed and acceleration: large enough to be obeyed whenever hand keys allow it. */
const LIMIT_WEIGHT = 1e4;
const DIFFERENCES = { velocity: [-1, 1], acceleration: [1, -2, 1], jerk: [-1, 3, -3, 1] } as const;

export interface AxisProblem {
  goals: AxisGoals;
  /** Length of the window on this axis, in pixels, the largest where it changes: the unit of lengths. */
  windowLength: number;
  /** Least and greatest position of its centre, frame by frame, in pixels. */
  bounds: readonly [Float64Array, Float64Array];
  /** Frames with a given position, in pixels. */
  fixed: ReadonlyMap<number, number>;
  fps: number;
  weights: MovementWeights;
}

const filled = (length: number, value: number) => new Float64Array(length).fill(value);

/** A norm of, or limit on, a difference of positions: free within ±limit, at a cost of `weight` beyond. */
function differenceTerm(stencil: readonly number[], count: number, limit: number, weight: number): Term {
  const rows = Math.max(0, count - stencil.length + 1);
  const upper = filled(rows, limit);
  const lower = limit === 0 ? upper : filled(rows, -limit);
  return { stencil, first: 0, lower, upper, below: weight, above: weight };
}

/** A cost for every frame outside an interval of positions, by its share; frames without an interval cost nothing. */
function intervalTerm(lower: Float64Array, upper: Float64Array, weight: number, shares: Float64Array): Term {
  const weights = lower.map((value, i) => (Number.isNaN(value) ? 0 : weight * shares[i]!));
  return { stencil: [1], first: 0, lower, upper, below: weights, above: weights };
}

/** Seconds for which a given place takes precedence around it, per window length by which it cuts the subject … */
const YIELDING_SECONDS = 12;
/** … up to this many. */
const MOST_YIELDING_SECONDS = 2;

/**
 * Weight of the goals, frame by frame. Where the editor puts the window so that it cuts the subject, that place takes
 * precedence over the subject, and less so further away: otherwise the window would hold the subject to the last moment,
 * and swing to the place and back.
 */
function sharesOfGoals({ goals, windowLength, fixed, fps }: AxisProblem): Float64Array {
  const shares = filled(goals.wanted.length, 1);
  for (const [frame, at] of fixed) {
    const beyond = Math.max(0, goals.insideLower[frame]! - at, at - goals.insideUpper[frame]!) / windowLength;
    if (!(beyond > 0)) continue;
    const reach = fps * Math.min(MOST_YIELDING_SECONDS, YIELDING_SECONDS * beyond);
    const end = Math.min(shares.length - 1, Math.floor(frame + reach));
    for (let i = Math.max(0, Math.ceil(frame - reach)); i <= end; i++) {
      shares[i] = Math.min(shares[i]!, ease("ease", Math.abs(i - frame) / reach));
    }
  }
  return shares;
}

/**
 * The path of one coordinate as the L1-optimal camera path (Grundmann, Kwatra, Essa 2011), with the subject as
 * soft constraints. Positions are divided by the window's length; costs are integrals over seconds, so that
 * Σ|Δx| is travel, fps·Σ|Δ²x| the integral of |acceleration| and fps²·Σ|Δ³x| that of |jerk|.
 */
function termsOf(problem: AxisProblem): { costs: Term[]; limits: Term[] } {
  const { goals, windowLength, bounds, fps, weights } = problem;
  const size = goals.wanted.length;
  const unit = (values: Float64Array) => values.map((value) => value / windowLength);
  const shifted = (values: Float64Array, by: number) => unit(values).map((value) => value + by);
  const secondsPerFrame = 1 / fps;
  const wanted = unit(goals.wanted);
  const shares = sharesOfGoals(problem);
  const limits: Term[] = [
    {
      stencil: [1],
      first: 0,
      lower: unit(bounds[0]),
      upper: unit(bounds[1]),
      below: Infinity,
      above: Infinity,
    },
    differenceTerm(DIFFERENCES.velocity, size, weights.maxSpeed * secondsPerFrame, LIMIT_WEIGHT),
    differenceTerm(DIFFERENCES.acceleration, size, weights.maxAcceleration * secondsPerFrame ** 2, LIMIT_WEIGHT * fps),
  ];
  const costs: Term[] = [
    differenceTerm(DIFFERENCES.velocity, size, 0, weights.travel),
    differenceTerm(DIFFERENCES.acceleration, size, 0, weights.acceleration * fps),
    differenceTerm(DIFFERENCES.jerk, size, 0, weights.jerk * fps * fps),
    intervalTerm(unit(goals.insideLower), unit(goals.insideUpper), weights.cut * secondsPerFrame, shares),
    intervalTerm(unit(goals.bodyLower), unit(goals.bodyUpper), weights.bodyCut * secondsPerFrame, shares),
    intervalTerm(unit(goals.protectLower), unit(goals.protectUpper), weights.protect * secondsPerFrame, shares),
    intervalTerm(
      shifted(goals.wanted, -weights.zone),
      shifted(goals.wanted, weights.zone),
      weights.away * secondsPerFrame,
      shares,
    ),
    intervalTerm(wanted, wanted, weights.tie * secondsPerFrame, shares),
  ];
  return { costs, limits };
}

/** Excess over a limit, in window lengths, that is rounding; a range smaller than this is a given place. */
const ROUNDING = 1e-7;

function programOf({ goals, fixed, windowLength, bounds }: AxisProblem, terms: Term[]): PiecewiseLinearProgram {
  const given = new Map<number, number>();
  const [low, high] = bounds;
  low.forEach((value, i) => {
    if (high[i]! - value < ROUNDING * windowLength) given.set(i, (value + high[i]!) / 2 / windowLength);
  });
  for (const [frame, value] of fixed) given.set(frame, value / windowLength);
  return { size: goals.wanted.length, terms, fixed: given };
}

/** The whole program of one coordinate. */
export function axisProgram(problem: AxisProblem): PiecewiseLinearProgram {
  const { costs, limits } = termsOf(problem);
  return programOf(problem, [...limits, ...costs]);
}

/** Seconds around a given place in which a path is likely to come near its limits. */
const LIMITED_SECONDS = 1.2;

/** The rows of a limit near given places, and the others; each with all rows, those left out at weight 0. */
function splitLimit(limit: Term, { fixed, fps }: AxisProblem): { near: Term; rest: Term } {
  const reach = Math.ceil(LIMITED_SECONDS * fps);
  const rest = limit.lower.map((_, row) => weightAt(limit.above, row));
  for (const frame of fixed.keys()) rest.fill(0, Math.max(0, frame - reach), frame + reach);
  const near = rest.map((weight, row) => (weight > 0 ? 0 : weightAt(limit.above, row)));
  return { near: { ...limit, below: near, above: near }, rest: { ...limit, below: rest, above: rest } };
}

/**
 * The optimum of the whole program. A calm path rarely comes near its limits except around given places: the optimum under
 * only those limits, if it obeys the others, is the optimum under all, and is found in half the time.
 */
function optimum(problem: AxisProblem): Solution {
  const { costs, limits } = termsOf(problem);
  if (problem.weights.maxSpeed === 0) {
    // Between different places even a resting window must move, and does so as softly as in a glide.
    const { maxSpeed, maxAcceleration } = MOVEMENT_WEIGHTS.glide;
    const moving = { ...problem.weights, maxSpeed, maxAcceleration };
    return restingPath(problem, costs) ?? optimum({ ...problem, weights: moving });
  }
  const start = startingPath(problem);
  const [bounds, ...movement] = limits;
  const split = movement.map((limit) => splitLimit(limit, problem));
  const likely = solveProgram(programOf(problem, [...split.map(({ near }) => near), ...costs]), start);
  const others = [bounds!, ...split.map(({ rest }) => rest)];
  if (others.every((limit) => isSatisfied(limit, likely.x, ROUNDING))) return likely;
  return solveProgram(programOf(problem, [...limits, ...costs]), start);
}

/** The best path of a window that does not move; null if given places or bounds require movement. */
function restingPath(problem: AxisProblem, costs: Term[]): Solution | null {
  const { fixed, windowLength, bounds } = problem;
  const least =
    Math.max(
      ...fixed.values(),
      bounds[0].reduce((a, b) => Math.max(a, b)),
    ) / windowLength;
  const most =
    Math.min(
      ...fixed.values(),
      bounds[1].reduce((a, b) => Math.min(a, b)),
    ) / windowLength;
  if (least > most + ROUNDING) return null;
  const x = filled(problem.goals.wanted.length, bestPlace(costs, [least, Math.max(least, most)]));
  return { x, objective: objectiveAt(programOf(problem, costs), x), iterations: 0, relativeGap: 0 };
}

/** A start strictly inside the bounds: near the wanted positions, constant where there are none. */
function startingPath({ goals, windowLength, bounds: [lower, upper] }: AxisProblem): Float64Array {
  let held = goals.wanted.find((value) => !Number.isNaN(value)) ?? (lower[0]! + upper[0]!) / 2;
  return goals.wanted.map((value, i) => {
    if (!Number.isNaN(value)) held = value;
    const [low, high] = [lower[i]!, upper[i]!];
    const room = 0.01 * (high - low);
    return clamped(held, low + room, high - room) / windowLength;
  });
}

/** Solves one coordinate; positions in pixels, one per frame. */
export function solveAxis(problem: AxisProblem): { positions: Float64Array; solution: Solution } {
  const { bounds, windowLength, fixed } = problem;
  const solution = optimum(problem);
  const positions = solution.x.map((value, i) => clamped(value * windowLength, bounds[0][i]!, bounds[1][i]!));
  for (const [frame, value] of fixed) positions[frame] = value;
  return { positions, solution };
}
