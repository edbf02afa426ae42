/** A number limited to a range. */
export const clamped = (value: number, least: number, most: number): number => Math.min(most, Math.max(least, value));
