import { ease, type Easing } from "./easing";
import type { Key } from "./keys";

/** A path as it is solved: a window for every frame of a shot. */
export interface DensePath {
  x: Float64Array;
  y: Float64Array;
  height: Float64Array;
}

/** Easings that may explain a stretch of a path, the plainest first. */
const CANDIDATE_EASINGS = ["linear", "ease", "ease-in", "ease-out"] as const satisfies readonly Easing[];
/** A key may be joined to one at most so many possible joints later. */
const MAX_JOINTS_APART = 90;
/** Part of a key that a stretch costs which just fits: between equally few keys the closer ones win. */
const ERROR_COST = 0.02;

interface Stretch {
  easing: Easing;
  /** Largest distance from the path, in pixels. */
  error: number;
}

/** How closely one easing reproduces the path from frame i to frame j; null when it is beyond the tolerance. */
function errorOf(path: DensePath, i: number, j: number, easing: Easing, tolerance: number): number | null {
  let largest = 0;
  for (const series of [path.x, path.y, path.height]) {
    const from = series[i]!;
    const distance = series[j]! - from;
    for (let k = i + 1; k < j; k++) {
      const error = Math.abs(series[k]! - from - distance * ease(easing, (k - i) / (j - i)));
      if (error > tolerance) return null;
      if (error > largest) largest = error;
    }
  }
  return largest;
}

function bestStretch(path: DensePath, i: number, j: number, tolerance: number): Stretch | null {
  let best: Stretch | null = null;
  for (const easing of CANDIDATE_EASINGS) {
    const error = errorOf(path, i, j, easing, tolerance);
    if (error !== null && (!best || error < best.error - 1e-9)) best = { easing, error };
  }
  return best;
}

/**
 * Where a path may have joints: the frames at which its acceleration changes. In a hold and in a steady move
 * there are none, so that their length costs nothing.
 */
function possibleJoints(path: DensePath, stops: readonly number[], tolerance: number): number[] {
  const last = path.x.length - 1;
  const joints = new Set([0, last, ...stops]);
  const threshold = tolerance * 1e-3;
  for (const series of [path.x, path.y, path.height]) {
    for (let t = 2; t < last; t++) {
      const jerk = series[t + 1]! - 3 * series[t]! + 3 * series[t - 1]! - series[t - 2]!;
      if (Math.abs(jerk) > threshold) joints.add(t - 1).add(t);
    }
  }
  const sorted = [...joints].sort((a, b) => a - b);
  // Changes too small to count can still add up to a bend: a stretch that nothing explains is halved.
  for (let i = 0; i + 1 < sorted.length;) {
    const [a, b] = [sorted[i]!, sorted[i + 1]!];
    if (b - a > 1 && !bestStretch(path, a, b, tolerance)) sorted.splice(i + 1, 0, (a + b) >> 1);
    else i++;
  }
  return sorted;
}

/** The cheapest chain of stretches from the first joint to the last, by dynamic programming. */
function cheapestChain(path: DensePath, joints: readonly number[], stops: ReadonlySet<number>, tolerance: number) {
  const costs = new Array<number>(joints.length).fill(Infinity);
  const from = new Array<{ joint: number; easing: Easing }>(joints.length);
  costs[0] = 0;
  for (let b = 1; b < joints.length; b++) {
    for (let a = b - 1; a >= 0 && b - a <= MAX_JOINTS_APART; a--) {
      const stretch = bestStretch(path, joints[a]!, joints[b]!, tolerance);
      const cost = stretch ? costs[a]! + 1 + (ERROR_COST * stretch.error) / tolerance : Infinity;
      if (cost < costs[b]!) {
        costs[b] = cost;
        from[b] = { joint: a, easing: stretch!.easing };
      }
      // A hand key is a joint whatever it costs.
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
 * The joints of a path: the fewest keys whose easings reproduce it within `tolerance` pixels. Frames in `hands`
 * are always keys. `offset` is the film's frame that the path begins at.
 */
export function reduceToKeys(path: DensePath, offset: number, tolerance: number, hands: ReadonlySet<number>): Key[] {
  const last = path.x.length - 1;
  const keyAt = (index: number, easing: Easing): Key => ({
    frame: offset + index,
    x: path.x[index]!,
    y: path.y[index]!,
    height: path.height[index]!,
    easing,
    by: hands.has(offset + index) ? "hand" : "solver",
  });
  const stops = [...hands].map((frame) => frame - offset).filter((index) => index > 0 && index < last);
  const joints = possibleJoints(path, stops, tolerance);
  const chain = cheapestChain(path, joints, new Set(stops), tolerance);
  return dropIdleKeys([...chain.map(({ frame, easing }) => keyAt(frame, easing)), keyAt(last, "hold")], tolerance);
}

/** Keys in the middle or at the end of a hold say nothing; the rest of a hold is pinned to one place. */
function dropIdleKeys(keys: Key[], tolerance: number): Key[] {
  const same = (a: Key, b: Key) =>
    Math.max(Math.abs(a.x - b.x), Math.abs(a.y - b.y), Math.abs(a.height - b.height)) <= tolerance / 2;
  const kept: Key[] = [];
  keys.forEach((key, i) => {
    const previous = kept.at(-1);
    const next = keys[i + 1];
    const settles = previous && same(previous, key) && key.by === "solver";
    if (settles && (!next || same(key, next))) return;
    kept.push(settles ? { ...key, x: previous.x, y: previous.y, height: previous.height } : key);
  });
  return kept.map((key, i) => {
    const next = kept[i + 1];
    const rests = !next || (next.x === key.x && next.y === key.y && next.height === key.height);
    return rests ? { ...key, easing: "hold" } : key;
  });
}
