import type { CropWindow } from "../geometry/crop-window";

/** How the window gets from a key to the next one. */
export const EASINGS = ["hold", "linear", "ease-in", "ease-out", "ease"] as const;
export type Easing = (typeof EASINGS)[number];

/** A place of the window at a frame of the film. */
export interface Key extends CropWindow {
  frame: number;
  easing: Easing;
  by: "solver" | "hand";
}

function assertNever(value: never): never {
  throw new Error(`unknown easing ${String(value)}`);
}

/** Share of the way that is done when a share `t` of the time has passed, both 0 to 1. */
export function ease(easing: Easing, t: number): number {
  switch (easing) {
    case "hold":
      return t < 1 ? 0 : 1;
    case "linear":
      return t;
    case "ease-in":
      return t * t;
    case "ease-out":
      return t * (2 - t);
    case "ease":
      return t * t * (3 - 2 * t);
    default:
      return assertNever(easing);
  }
}

/** The window at a frame; before the first key and after the last one it rests there. Keys are in order. */
export function windowAt(keys: readonly Key[], frame: number): CropWindow {
  let low = 0;
  let high = keys.length - 1;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (keys[middle]!.frame <= frame) low = middle;
    else high = middle - 1;
  }
  const from = keys[low]!;
  const to = keys[low + 1];
  if (!to || frame <= from.frame) return { x: from.x, y: from.y, height: from.height };
  const share = ease(from.easing, (frame - from.frame) / (to.frame - from.frame));
  return {
    x: from.x + (to.x - from.x) * share,
    y: from.y + (to.y - from.y) * share,
    height: from.height + (to.height - from.height) * share,
  };
}

/** A path as it is solved: a window for every frame of a shot. */
export interface DensePath {
  x: Float64Array;
  y: Float64Array;
  height: Float64Array;
}

type Segment = { end: number; easing: Easing };

/** The easing that takes the path from frame i to frame j within the tolerance, or null. */
function fittingEasing(path: DensePath, i: number, j: number, tolerance: number): Easing | null {
  const fits = (easing: Easing): boolean => {
    for (const series of [path.x, path.y, path.height]) {
      const from = series[i]!;
      const distance = series[j]! - from;
      for (let k = i + 1; k < j; k++) {
        const expected = from + distance * ease(easing, (k - i) / (j - i));
        if (Math.abs(series[k]! - expected) > tolerance) return false;
      }
    }
    return true;
  };
  const still = [path.x, path.y, path.height].every((series) => Math.abs(series[j]! - series[i]!) <= tolerance / 4);
  if (still && fits("linear")) return "linear";
  return (["linear", "ease", "ease-in", "ease-out"] as const).find(fits) ?? null;
}

/** The longest segment from frame i that one easing reproduces: doubling, then back from the first failure. */
function longestSegment(path: DensePath, i: number, last: number, tolerance: number): Segment {
  let best: Segment = { end: Math.min(last, i + 1), easing: "linear" };
  let length = 2;
  let failure = last;
  while (i + length <= last) {
    const easing = fittingEasing(path, i, i + length, tolerance);
    if (!easing && length > 8) {
      failure = i + length;
      break;
    }
    if (easing) best = { end: i + length, easing };
    length *= 2;
  }
  for (let end = failure; end > best.end; end--) {
    const easing = fittingEasing(path, i, end, tolerance);
    if (easing) return { end, easing };
  }
  return best;
}

/**
 * The joints of a path: few keys whose easings reproduce it within `tolerance` pixels. Frames in `hands` are
 * always keys. `offset` is the film's frame that the path begins at.
 */
export function reduceToKeys(path: DensePath, offset: number, tolerance: number, hands: ReadonlySet<number>): Key[] {
  const count = path.x.length;
  const keyAt = (index: number, easing: Easing): Key => ({
    frame: offset + index,
    x: path.x[index]!,
    y: path.y[index]!,
    height: path.height[index]!,
    easing,
    by: hands.has(offset + index) ? "hand" : "solver",
  });
  const stops = [...hands].map((frame) => frame - offset).filter((index) => index > 0 && index < count - 1);
  stops.sort((a, b) => a - b);
  stops.push(count - 1);
  const keys: Key[] = [];
  let at = 0;
  for (const stop of stops) {
    while (at < stop) {
      const segment = longestSegment(path, at, stop, tolerance);
      keys.push(keyAt(at, segment.easing));
      at = segment.end;
    }
  }
  keys.push(keyAt(count - 1, "hold"));
  return dropIdleKeys(keys, tolerance);
}

/** Keys in the middle or at the end of a hold say nothing; the rest of a hold is pinned to one place. */
function dropIdleKeys(keys: Key[], tolerance: number): Key[] {
  const same = (a: Key, b: Key) =>
    Math.max(Math.abs(a.x - b.x), Math.abs(a.y - b.y), Math.abs(a.height - b.height)) <= tolerance / 2;
  const kept: Key[] = [];
  keys.forEach((key, i) => {
    const previous = kept.at(-1);
    const next = keys[i + 1];
    const resting = previous && same(previous, key) && (!next || same(key, next));
    if (resting && key.by === "solver") return;
    const settles = previous && same(previous, key) && key.by === "solver";
    kept.push(settles ? { ...key, x: previous.x, y: previous.y, height: previous.height } : key);
  });
  return kept.map((key, i) => {
    const next = kept[i + 1];
    const rests = !next || (next.x === key.x && next.y === key.y && next.height === key.height);
    return rests ? { ...key, easing: "hold" } : key;
  });
}
