import { wordsOf } from "./break-text";

/** Syllables of a digit, and of a character of a script without vowels of its own. */
const DIGIT = 1.5;
const CHARACTER = 1;
const VOWELS = /[aeiouyàáâãäåæèéêëìíîïòóôõöøœùúûüýÿāēīōūаеёиоуыэюяαεηιουω]+/giu;

/**
 * Approximate number of syllables of a word: its groups of vowels, without an English silent e. Only compared with other
 * words of the same text.
 */
export function syllablesIn(word: string): number {
  const bare = word.normalize("NFC").replace(/[^\p{L}\p{N}]/gu, "");
  const digits = bare.match(/\p{N}/gu)?.length ?? 0;
  const letters = bare.replace(/\p{N}/gu, "");
  if (letters === "") return DIGIT * digits;
  const groups = letters.match(VOWELS)?.length ?? 0;
  if (groups === 0) return DIGIT * digits + Math.max(1, CHARACTER * (/^[A-Z]+$/.test(letters) ? letters.length : 1));
  const silent = groups > 1 && /[^aeiouyl]e$/i.test(letters) ? 1 : 0;
  return DIGIT * digits + groups - silent;
}

/** Approximate number of syllables of a text, with a little more for breaths. */
export const syllablesOf = (text: string): number =>
  wordsOf(text).reduce((sum, word) => sum + syllablesIn(word) + (/[,;:–—]$/u.test(word) ? 0.5 : 0), 0);
