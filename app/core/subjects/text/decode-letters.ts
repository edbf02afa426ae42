/** The letters that a text reader sees along a line. */

/** A line as it was read, and how sure each of its letters is on average, 0 to 1. */
export interface Reading {
  text: string;
  sure: number;
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
  for (let at = 0; at < steps.length; at += count) {
    let best = 0;
    for (let letter = 1; letter < count; letter++) if (steps[at + letter]! > steps[at + best]!) best = letter;
    if (best !== 0 && best !== before) {
      text += letters[best]!;
      sum += steps[at + best]!;
      read++;
    }
    before = best;
  }
  return { text: text.trim(), sure: read === 0 ? 0 : sum / read };
}
