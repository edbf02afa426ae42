/** The middle one of the values in their order, of an even number the upper of two; NaN if there are none. */
export const median = (values: readonly number[]): number =>
  Float64Array.from(values).sort()[values.length >> 1] ?? Number.NaN;
