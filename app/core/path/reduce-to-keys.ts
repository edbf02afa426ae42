import { type CurveHandles, curveOf, ease, type Easing } from "./easing";
import { type DensePath, errorOf, pointOf, VALUES } from "./dense-path";
import { dropIdleKeys } from "./drop-idle-keys";
import type { Key } from "./keys";

/** Named easings that may fit a segment of a path, the simplest first, with their speeds at both ends. */
const NAMED = [
  { easing: "linear", speeds: [1, 1] },
  { easing: "ease", speeds: [0, 0] },
  { easing: "ease-in", speeds: [0, 2] },
  { easing: "ease-out", speeds: [2, 0] },
] as const satisfies readonly { easing: Easing; speeds: readonly [number, number] }[];
/** Largest number of possible joints that a segment spans. */
const MAX_JOINTS_APART = 90;
/** Cost of a segment with the largest permitted error, in keys: among equally few keys the closer fit wins. */
const ERROR_COST = 0.02;
/** Additional cost of a curve, which says less to a reader than a named easing. */
const CURVE_COST = 0.05;
/** Cost of a kink: more than one further key. */
const KINK_COST = 1.5;
/** Frames in which the speed at a key may lead no further off the path than the tolerance; otherwise it is a kink. */
const KINK_FRAMES = 16;

interface Segment {
  easing: Easing;
  cost: number;
}

/** Pixels per frame at a frame of a series. */
function speedAt(series: Float64Array, k: number): number {
  const [before, after] = [Math.max(0, k - 1), Math.min(series.length - 1, k + 1)];
  return (series[after]! - series[before]!) / Math.max(1, after - before);
}

/** Whether a segment with these speeds at its ends, in lengths per segment, passes through them as the path does. */
function isSmooth(
  path: DensePath,
  i: number,
  j: number,
  speeds: readonly [number, number],
  tolerance: number,
): boolean {
  const last = path.x.at.length - 1;
  return VALUES.every((value) => {
    const { at } = path[value];
    const pace = (at[j]! - at[i]!) / (j - i);
    return [i, j].every((k, end) => {
      // The ends of the path have no speed to match.
      if (k === 0 || k === last) return true;
      return Math.abs(speeds[end]! * pace - speedAt(at, k)) * KINK_FRAMES <= tolerance;
    });
  });
}

/**
 * The curve with the path's speed at both ends: a cubic Hermite polynomial, which is a Bézier curve with handles at thirds
 * of the time. Null where it would overshoot.
 */
function curveThrough(
  path: DensePath,
  i: number,
  j: number,
): { speeds: [number, number]; handles: CurveHandles } | null {
  const all = VALUES.map((value) => path[value].at);
  const lengths = all.map((series) => Math.abs(series[j]! - series[i]!));
  const series = all[lengths.indexOf(Math.max(...lengths))]!;
  const pace = (series[j]! - series[i]!) / (j - i);
  if (pace === 0) return null;
  const speeds: [number, number] = [speedAt(series, i) / pace, speedAt(series, j) / pace];
  const [y1, y2] = [speeds[0] / 3, 1 - speeds[1] / 3].map((y) => Number(y.toFixed(4))) as [number, number];
  if (Math.min(y1, y2) < 0 || Math.max(y1, y2) > 1) return null;
  return { speeds, handles: [0.3333, y1, 0.6667, y2] };
}

function bestSegment(path: DensePath, i: number, j: number, tolerance: number): Segment | null {
  let best: Segment | null = null;
  const [start, end] = [pointOf(path, i), pointOf(path, j)];
  const weigh = (easing: Easing, speeds: readonly [number, number], way: (t: number) => number, extra: number) => {
    const error = errorOf(path, start, end, way);
    if (error === null) return;
    const kink = isSmooth(path, i, j, speeds, tolerance) ? 0 : KINK_COST;
    const cost = extra + kink + (ERROR_COST * error) / tolerance;
    if (!best || cost < best.cost - 1e-9) best = { easing, cost };
  };
  for (const { easing, speeds } of NAMED) weigh(easing, speeds, (t) => ease(easing, t), 0);
  const curve = curveThrough(path, i, j);
  if (curve) {
    const [, y1, , y2] = curve.handles;
    const way = (t: number) => 3 * (1 - t) * t * ((1 - t) * y1 + t * y2) + t ** 3;
    weigh(curveOf(curve.handles), curve.speeds, way, CURVE_COST);
  }
  return best;
}

/**
 * Possible joints of a path: the frames at which its acceleration changes. A hold or a steady move has none, so that its
 * length costs nothing.
 */
function possibleJoints(path: DensePath, stops: readonly number[], tolerance: number): number[] {
  const last = path.x.at.length - 1;
  const joints = new Set([0, last, ...stops]);
  const threshold = tolerance * 1e-3;
  for (const value of VALUES) {
    const series = path[value].at;
    for (let t = 2; t < last; t++) {
      const jerk = series[t + 1]! - 3 * series[t]! + 3 * series[t - 1]! - series[t - 2]!;
      if (Math.abs(jerk) > threshold) joints.add(t - 1).add(t);
    }
  }
  const sorted = [...joints].sort((a, b) => a - b);
  // Changes too small to count can add up to a bend: a segment that nothing fits is halved.
  for (let i = 0; i + 1 < sorted.length;) {
    const [a, b] = [sorted[i]!, sorted[i + 1]!];
    if (b - a > 1 && !bestSegment(path, a, b, tolerance)) sorted.splice(i + 1, 0, (a + b) >> 1);
    else i++;
  }
  return sorted;
}

/** The cheapest chain of segments from the first joint to the last, by dynamic programming. */
function cheapestChain(path: DensePath, joints: readonly number[], stops: ReadonlySet<number>, tolerance: number) {
  const costs = new Array<number>(joints.length).fill(Infinity);
  const from = new Array<{ joint: number; easing: Easing }>(joints.length);
  costs[0] = 0;
  for (let b = 1; b < joints.length; b++) {
    for (let a = b - 1; a >= 0 && b - a <= MAX_JOINTS_APART; a--) {
      const segment = bestSegment(path, joints[a]!, joints[b]!, tolerance);
      const cost = segment ? costs[a]! + 1 + segment.cost : Infinity;
      if (cost < costs[b]!) {
        costs[b] = cost;
        from[b] = { joint: a, easing: segment!.easing };
      }
      // A hand key is always a joint.
      if (stops.has(joints[a]!)) break;
    }
  }
  const chain: { frame: number; easing: Easing }[] = [];
  for (let b = joints.length - 1; b > 0; b = from[b]!.joint) {
    chain.unshift({ frame: joints[from[b]!.joint]!, easing: from[b]!.easing });
  }
  return chain;
}

/**
 * The joints of a path: the fewest keys whose easings reproduce it within its bounds, to within `tolerance` pixels. Frames
 * in `hands` are always keys. `offset` is the first frame of the path in the film.
 */
export function reduceToKeys(path: DensePath, offset: number, tolerance: number, hands: ReadonlySet<number>): Key[] {
  const last = path.x.at.length - 1;
  const stops = [...hands].map((frame) => frame - offset).filter((index) => index > 0 && index < last);
  const joints = possibleJoints(path, stops, tolerance);
  const chain = [...cheapestChain(path, joints, new Set(stops), tolerance), { frame: last, easing: "hold" as const }];
  const keys = chain.map(({ frame, easing }): Key => {
    const by = hands.has(offset + frame) ? "hand" : "solver";
    return { ...pointOf(path, frame), easing, by };
  });
  return dropIdleKeys(path, keys, tolerance).map((key) => ({ ...key, frame: offset + key.frame }));
}
