import type { FrameRange } from "../time/rate";
import type { DensePath, DenseValue } from "./dense-path";
import type { Easing } from "./easing";
import type { Key } from "./keys";
import { reduceToKeys } from "./reduce-to-keys";

/** A hand key in its shot, with the editor's easing to the next one. */
export interface PlacedKey {
  frame: number;
  easing: Easing | null;
}

/** A segment that the editor has eased: from one hand key to the next, or holding to the shot's end. */
interface EasedSegment {
  from: number;
  to: number;
  easing: Easing;
}

function easedSegments(hands: readonly PlacedKey[], end: number): EasedSegment[] {
  return hands.flatMap(({ frame, easing }, i) => {
    const next = hands[i + 1];
    if (!easing || (!next && easing !== "hold")) return [];
    return [{ from: frame, to: next?.frame ?? end, easing }];
  });
}

/**
 * The keys of a solved path: the fewest that reproduce it where the solver laid it, and only the editor's own where the
 * editor has set the easing between them.
 * @param hands in order of their frames
 */
export function keysAround(path: DensePath, shot: FrameRange, hands: readonly PlacedKey[], tolerance: number): Key[] {
  const byHand = new Set(hands.map(({ frame }) => frame));
  const keys: Key[] = [];
  let begun = shot.start;
  const reduce = (end: number) => {
    const cut = (values: Float64Array) => values.subarray(begun - shot.start, end - shot.start);
    const part = (value: DenseValue) => ({ at: cut(value.at), low: cut(value.low), high: cut(value.high) });
    if (end > begun)
      keys.push(
        ...reduceToKeys({ x: part(path.x), y: part(path.y), height: part(path.height) }, begun, tolerance, byHand),
      );
  };
  for (const { from, to, easing } of easedSegments(hands, shot.end)) {
    reduce(from + 1);
    keys[keys.length - 1] = { ...keys.at(-1)!, easing };
    begun = to;
  }
  reduce(shot.end);
  return keys;
}
