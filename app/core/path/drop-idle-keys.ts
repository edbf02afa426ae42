import { type DensePath, errorOf, VALUES } from "./dense-path";
import { ease } from "./easing";
import type { Key } from "./keys";

/** Removes keys inside or at the end of a hold; the rest of a hold is pinned to one place, where no bound forbids that. */
export function dropIdleKeys(path: DensePath, keys: readonly Key[], tolerance: number): Key[] {
  const same = (a: Key, b: Key) => VALUES.every((value) => Math.abs(a[value] - b[value]) <= tolerance / 2);
  const isIn = (key: Key) =>
    VALUES.every((value) => {
      const { low, high } = path[value];
      return key[value] >= low[key.frame]! && key[value] <= high[key.frame]!;
    });
  /** The last key up to which a hold can continue from another, pinned to it; null if none. */
  const restOf = (from: Key, index: number): { index: number; key: Key } | null => {
    let rest = null;
    for (let i = index + 1; i < keys.length; i++) {
      const { frame, easing, by } = keys[i]!;
      const pinned: Key = { ...from, frame, easing, by };
      if (by === "hand" || !same(from, keys[i]!) || !isIn(pinned)) break;
      if (errorOf(path, from, pinned, () => 0) === null) break;
      const next = keys[i + 1];
      if (!next || errorOf(path, pinned, next, (t) => ease(easing, t)) !== null) rest = { index: i, key: pinned };
    }
    return rest;
  };
  const kept: Key[] = [];
  for (let i = 0; i < keys.length; i++) {
    const rest = restOf(keys[i]!, i);
    kept.push(keys[i]!);
    if (!rest) continue;
    i = rest.index;
    if (i < keys.length - 1) kept.push(rest.key);
  }
  return kept.map((key, i) => {
    const next = kept[i + 1];
    return !next || VALUES.every((value) => next[value] === key[value]) ? { ...key, easing: "hold" } : key;
  });
}
