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
