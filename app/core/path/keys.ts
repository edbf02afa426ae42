import type { CropWindow } from "../geometry/crop-window";
import { ease, type Easing } from "./easing";

/** A place of the window at a frame of the film. */
export interface Key extends CropWindow {
  frame: number;
  easing: Easing;
  by: "solver" | "hand";
}

/** The window at a frame; it rests before the first key and after the last. Keys are in order. */
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
