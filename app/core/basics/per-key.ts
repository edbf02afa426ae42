import { isSameList } from "./structure";

/**
 * Keeps one value for each key for as long as what it was made of stays the same, so that a change in one shot of many
 * costs no more than in one of few, and what is made of it in turn stays as well.
 */
export class PerKey<Value> {
  private readonly kept = new Map<string, { from: readonly unknown[]; value: Value }>();

  /** @param from all that decides the value */
  get(key: string, from: readonly unknown[], make: () => Value): Value {
    const kept = this.kept.get(key);
    if (kept && isSameList(kept.from, from)) return kept.value;
    const value = make();
    this.kept.set(key, { from, value });
    return value;
  }
}
