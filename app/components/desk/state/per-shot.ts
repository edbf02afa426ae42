/**
 * Keeps one value for each shot for as long as what it was made of stays the same, so that a change in one shot of many
 * costs no more than in one of few, and what is made of it in turn stays as well.
 */
export class PerShot<Value> {
  private readonly kept = new Map<string, { from: readonly unknown[]; value: Value }>();

  /** @param from all that decides the value */
  get(shotId: string, from: readonly unknown[], make: () => Value): Value {
    const kept = this.kept.get(shotId);
    if (kept?.from.length === from.length && kept.from.every((part, i) => Object.is(part, from[i]))) return kept.value;
    const value = make();
    this.kept.set(shotId, { from, value });
    return value;
  }
}
