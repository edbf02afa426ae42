import { type Box, boxArea, boxUnion, type Size } from "../geometry/box";
import { boxAt, type Track } from "../subjects/tracking/track";

/** Room that what is protected has to have in the window, in window lengths: it is drawn, or found, with its own. */
export const PROTECT_MARGIN = 0.015;

/** Whether a window is large enough for a box, with room beside it. */
export const fitsInto = (box: Box, window: Size): boolean =>
  box.width <= (1 - 2 * PROTECT_MARGIN) * window.width && box.height <= window.height;

/**
 * What is to be kept inside at a frame: what the editor protects, and of the text in the picture as much as fits into the
 * window together with it, the largest first.
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
