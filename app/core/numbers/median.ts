/** The median of some values, the upper one of an even number; NaN if there are none. */
export const median = (values: readonly number[]): number =>
  Float64Array.from(values).sort()[values.length >> 1] ?? Number.NaN;
