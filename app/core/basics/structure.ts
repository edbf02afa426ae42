/** Comparison and structural sharing of immutable plain values. */

const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === "object" && value !== null && Object.getPrototypeOf(value) === Object.prototype;

const ownKeys = (value: object): string[] => Object.keys(value).sort();

const idOf = (item: unknown): unknown => (isRecord(item) ? item.id : undefined);

/** Whether two lists hold identical values. */
export const isSameList = (a: readonly unknown[], b: readonly unknown[]): boolean =>
  a.length === b.length && a.every((item, i) => Object.is(item, b[i]));

/** Deep equality of plain values: numbers, texts, lists, records and maps. */
export function isSame(a: unknown, b: unknown): boolean {
  if (Object.is(a, b)) return true;
  if (Array.isArray(a) && Array.isArray(b)) return a.length === b.length && a.every((item, i) => isSame(item, b[i]));
  if (a instanceof Map && b instanceof Map) {
    return a.size === b.size && [...a].every(([key, value]) => b.has(key) && isSame(value, b.get(key)));
  }
  if (!isRecord(a) || !isRecord(b)) return false;
  const [keys, others] = [ownKeys(a), ownKeys(b)];
  return keys.length === others.length && keys.every((key, i) => key === others[i] && isSame(a[key], b[key]));
}

/**
 * `next`, built from the values of `before` wherever both are equal, so that comparing by identity finds what has really
 * changed.
 */
export function shareStructure<T>(before: unknown, next: T): T {
  if (Object.is(before, next)) return next;
  if (Array.isArray(before) && Array.isArray(next)) {
    // An insertion must not make everything after it new: items with an id are matched by it.
    const known = new Map(before.map((item: unknown, i) => [idOf(item) ?? i, item]));
    const shared = next.map((item: unknown, i) => shareStructure(known.get(idOf(item) ?? i), item));
    return (shared.length === before.length && shared.every((item, i) => item === before[i]) ? before : shared) as T;
  }
  if (before instanceof Map && next instanceof Map) {
    const shared = new Map([...next].map(([key, value]) => [key, shareStructure(before.get(key), value) as unknown]));
    const same = shared.size === before.size && [...shared].every(([key, value]) => before.get(key) === value);
    return (same && [...shared.keys()].every((key) => before.has(key)) ? before : shared) as T;
  }
  if (isRecord(before) && isRecord(next)) {
    const shared = Object.fromEntries(
      Object.entries(next).map(([key, value]) => [key, shareStructure(before[key], value)]),
    );
    const keys = Object.keys(shared);
    const same = keys.length === Object.keys(before).length && keys.every((key) => before[key] === shared[key]);
    return (same && keys.every((key) => key in before) ? before : shared) as T;
  }
  return next;
}
