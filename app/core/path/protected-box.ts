import { type Box, boxArea, boxUnion, type Size } from "../geometry/box";
import { boxAt, type Track } from "../subjects/tracking/track";

/** Margin of protected areas in the window, in window lengths; they are drawn or found with a margin of their own. */
export const PROTECT_MARGIN = 0.015;

/** Whether a box fits into a window, with a margin. */
export const fitsInto = (box: Box, window: Size): boolean =>
  box.width <= (1 - 2 * PROTECT_MARGIN) * window.width && box.height <= window.height;

/**
 * What to keep inside at a frame: the protected area, and as much burnt-in text as fits the window together with it, the
 * largest first.
 */
export function protectedBox(frame: number, protect: Box | null, texts: readonly Track[], window: Size): Box | null {
  const boxes = texts.flatMap((track) => boxAt(track, frame) ?? []).sort((a, b) => boxArea(b) - boxArea(a));
  let kept = protect;
  for (const box of boxes) {
    const both = kept ? boxUnion([kept, box]) : box;
    if (fitsInto(both, window)) kept = both;
  }
  return kept;
}
