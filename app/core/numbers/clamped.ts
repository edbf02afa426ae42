/** The nearest number that is no less than one and no more than another. */
export const clamped = (value: number, least: number, most: number): number => Math.min(most, Math.max(least, value));
