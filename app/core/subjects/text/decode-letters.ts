/** The letters that a text reader sees along a line. */

/** Steps in a row without a letter, of an eighth of the line's height each, after which a letter was not recognised. */
const LONGEST_GAP = 12;
/** Mean certainty of a line of a script that the reader has learned; letters that it takes for others are less certain. */
const KNOWN = 0.95;

/** A line as it was read. */
export interface Reading {
  text: string;
  /** How sure its letters are on average, 0 to 1. */
  sure: number;
  /**
   * Whether each of its letters is known. Of a script that the reader has not learned it takes some letters for others, unsurely,
   * and passes over the rest.
   */
  isKnown: boolean;
}

/**
 * Takes the likeliest letter at each step, and those that follow themselves once (connectionist temporal classification:
 * Graves et al. 2006, best path).
 * @param steps probabilities of all letters at each step, one step after the other
 * @param letters the first stands for none
 */
export function decodeLetters(steps: Float32Array, letters: readonly string[]): Reading {
  const count = letters.length;
  let [text, sum, read, before] = ["", 0, 0, 0];
  let [gap, longest] = [0, 0];
  for (let at = 0; at < steps.length; at += count) {
    let best = 0;
    for (let letter = 1; letter < count; letter++) if (steps[at + letter]! > steps[at + best]!) best = letter;
    if (best !== 0 && best !== before) {
      text += letters[best]!;
      sum += steps[at + best]!;
      read++;
    }
    gap = best === 0 ? gap + 1 : 0;
    longest = Math.max(longest, gap);
    before = best;
  }
  const sure = read === 0 ? 0 : sum / read;
  return { text: text.trim(), sure, isKnown: sure >= KNOWN && longest <= LONGEST_GAP };
}
