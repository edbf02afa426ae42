/** Reshapes ranges of a path as a whole: the result is the fewest hand keys that lead the window along the new path. */
import type { Point } from "../geometry/box";
import type { CropWindow } from "../geometry/crop-window";
import { type DensePath, type VALUES } from "./dense-path";
import type { HandKey } from "./hand-key";
import { withinTolerance } from "./key-bounds";
import { reduceToKeys } from "./reduce-to-keys";

type Value = (typeof VALUES)[number];

/**
 * The fewest hand keys that lead the window through these places, one per frame from `start`, within a tolerance in pixels.
 * After the last of them the solver continues.
 */
export function keysThrough(
  windows: readonly CropWindow[],
  start: number,
  pane: number,
  tolerancePx: number,
): HandKey[] {
  if (windows.length === 0) return [];
  const of = (value: Value) =>
    withinTolerance(
      Float64Array.from(windows, (window) => window[value]),
      tolerancePx,
    );
  const path: DensePath = { x: of("x"), y: of("y"), height: of("height") };
  return reduceToKeys(path, start, tolerancePx, new Set()).map(({ frame, x, y, height, easing }, i, keys) => ({
    frame,
    pane,
    x,
    y,
    height,
    easing: i === keys.length - 1 ? null : easing,
  }));
}

/** Standard deviations beyond which a Gaussian is practically 0. */
const REACH = 3;

/**
 * A path without quick changes: the mean around each frame, weighted by a Gaussian. Both ends stay where they are.
 * @param sigmaFrames its standard deviation
 */
export function smoothed(windows: readonly CropWindow[], sigmaFrames: number): CropWindow[] {
  const reach = Math.ceil(REACH * sigmaFrames);
  const weights = Array.from({ length: 2 * reach + 1 }, (_, i) =>
    sigmaFrames > 0 ? Math.exp(-((i - reach) ** 2) / (2 * sigmaFrames ** 2)) : 1,
  );
  const total = weights.reduce((sum, weight) => sum + weight, 0);
  const last = windows.length - 1;
  // Beyond an end the path continues point-reflected there, so that the end itself is the mean.
  const at = (value: Value, i: number): number => {
    if (i < 0) return 2 * windows[0]![value] - at(value, Math.min(last, -i));
    if (i > last) return 2 * windows[last]![value] - at(value, Math.max(0, 2 * last - i));
    return windows[i]![value];
  };
  const mean = (value: Value, i: number): number =>
    weights.reduce((sum, weight, k) => sum + weight * at(value, i + k - reach), 0) / total;
  return windows.map((_, i) => ({ x: mean("x", i), y: mean("y", i), height: mean("height", i) }));
}

/**
 * A path shifted by an offset, fully in its middle and not at all at its ends.
 * @param by pixels
 * @param fadeFrames over which the offset comes and goes
 */
export function shiftedSoftly(windows: readonly CropWindow[], by: Point, fadeFrames: number): CropWindow[] {
  const last = windows.length - 1;
  const fade = Math.max(1, Math.min(fadeFrames, last / 2));
  return windows.map(({ x, y, height }, i) => {
    const t = Math.min(1, Math.min(i, last - i) / fade);
    const share = t * t * (3 - 2 * t);
    return { x: x + share * by.x, y: y + share * by.y, height };
  });
}

/** A path in reverse. */
export const reversed = (windows: readonly CropWindow[]): CropWindow[] => [...windows].reverse();

/** A place of the window while it was steered, at a frame. */
export interface Led {
  frame: number;
  window: CropWindow;
}

/** One place per frame from the first to the last of a steered path; missing frames are interpolated. */
export function everyFrame(led: readonly Led[]): { start: number; windows: CropWindow[] } {
  const known = [...new Map(led.map((one) => [one.frame, one])).values()].sort((a, b) => a.frame - b.frame);
  const windows: CropWindow[] = [];
  known.forEach(({ frame, window }, i) => {
    const before = known[i - 1];
    const gap = before ? frame - before.frame : 1;
    for (let k = 1; k <= gap; k++) {
      const from = before?.window ?? window;
      const mix = (value: Value) => from[value] + ((window[value] - from[value]) * k) / gap;
      windows.push({ x: mix("x"), y: mix("y"), height: mix("height") });
    }
  });
  return { start: known[0]?.frame ?? 0, windows };
}
