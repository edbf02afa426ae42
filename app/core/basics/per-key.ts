import { isSameList } from "./structure";

/**
 * Memoises one value per key for as long as its inputs stay the same: a change in one shot of many costs no more than in
 * one of few, and values derived from unchanged ones stay as well.
 */
export class PerKey<Value> {
  private readonly kept = new Map<string, { from: readonly unknown[]; value: Value }>();

  /** @param from the inputs that determine the value */
  get(key: string, from: readonly unknown[], make: () => Value): Value {
    const kept = this.kept.get(key);
    if (kept && isSameList(kept.from, from)) return kept.value;
    const value = make();
    this.kept.set(key, { from, value });
    return value;
  }
}
