import type { Box } from "../geometry/box";
import type { DenseValue } from "./dense-path";

/** Part of a pixel that nobody sees missing. */
const UNSEEN = 0.5;

/** A coordinate of a path whose keys may deviate by some pixels. */
export const withinTolerance = (at: Float64Array, tolerance: number): DenseValue => ({
  at,
  low: at.map((value) => value - tolerance),
  high: at.map((value) => value + tolerance),
});

/**
 * A coordinate of a path with the bounds of its keys: within a tolerance of the path, but not so far off that the window
 * would cut what it holds whole.
 * @param lengths of the window on this axis, frame by frame, in pixels
 * @param kept the span to stay whole at a frame of the path, if any
 */
export function boundKeys(
  at: Float64Array,
  lengths: Float64Array,
  axis: "x" | "y",
  kept: (index: number) => Box | null,
  tolerance: number,
): DenseValue {
  const { low, high } = withinTolerance(at, tolerance);
  const extent = axis === "x" ? "width" : "height";
  at.forEach((value, i) => {
    const box = kept(i);
    if (!box) return;
    const least = box[axis] + box[extent] - lengths[i]! / 2 - UNSEEN;
    const most = box[axis] + lengths[i]! / 2 + UNSEEN;
    if (value < least || value > most) return;
    low[i] = Math.max(low[i]!, least);
    high[i] = Math.min(high[i]!, most);
  });
  return { at, low, high };
}
