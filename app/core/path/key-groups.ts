/** Several hand keys that are moved or copied together. */
import { clamped } from "../numbers/clamped";
import type { Point } from "../geometry/box";
import { type FrameRange, inRange } from "../time/rate";
import type { HandKey } from "./hand-key";

/** Keys shifted by some pixels. */
export const nudged = (keys: readonly HandKey[], { x, y }: Point): HandKey[] =>
  keys.map((key) => ({ ...key, x: key.x + x, y: key.y + y }));

/** Keys of a shot shifted by some frames, or as far as the shot goes: no key crosses a cut. */
export function movedKeys(keys: readonly HandKey[], by: number, shot: FrameRange): HandKey[] {
  const frames = keys.map(({ frame }) => frame);
  const [first, last] = [Math.min(...frames), Math.max(...frames)];
  const shift = clamped(by, shot.start - first, shot.end - 1 - last);
  return keys.map((key) => ({ ...key, frame: key.frame + shift }));
}

/** Copied keys, with frames counted from the first of them. */
export type CopiedKeys = readonly (Omit<HandKey, "frame" | "pane"> & { after: number })[];

export function copiedKeys(keys: readonly HandKey[]): CopiedKeys {
  const first = Math.min(...keys.map(({ frame }) => frame));
  return [...keys]
    .sort((a, b) => a.frame - b.frame)
    .map(({ frame, x, y, height, easing }) => ({ after: frame - first, x, y, height, easing }));
}

/**
 * Copied keys in a shot, the first of them at a frame; those beyond the shot's end are left out, because keys do not cross
 * a cut.
 * @param pane of the shot into which they are pasted
 */
export const pastedKeys = (copied: CopiedKeys, at: number, pane: number, shot: FrameRange): HandKey[] =>
  copied.map(({ after, ...key }) => ({ ...key, pane, frame: at + after })).filter(({ frame }) => inRange(frame, shot));
