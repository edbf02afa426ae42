const LOCALE = "en";
const WHOLE = new Intl.NumberFormat(LOCALE);
const PERCENT = new Intl.NumberFormat(LOCALE, { style: "percent" });
const WITH_DIGITS = new Map<number, Intl.NumberFormat>();

/** A count in words: "1 shot", "1,200 shots"; `many` where an s is not enough. */
export const counted = (count: number, one: string, many = `${one}s`): string =>
  `${WHOLE.format(count)} ${count === 1 ? one : many}`;

const SMALL = ["none", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten"];

/** "three" for 3; digits above ten. */
export const inWords = (count: number): string => SMALL[count] ?? WHOLE.format(count);

/** "46%" for a share from 0 to 1. */
export const percent = (share: number): string => PERCENT.format(share);

/** "3.20": a number with a fixed number of decimal places. */
export function fixed(value: number, digits: number): string {
  const known = WITH_DIGITS.get(digits);
  if (known) return known.format(value);
  const format = new Intl.NumberFormat(LOCALE, { minimumFractionDigits: digits, maximumFractionDigits: digits });
  WITH_DIGITS.set(digits, format);
  return format.format(value);
}
