/** Breaks text into captions and their lines at a reader's pauses. */

/** Costs of ending a line or a caption after a word, besides unevenness. */
const AFTER_SENTENCE = -0.6;
const AFTER_CLAUSE = -0.35;
/** A break before a word that begins a phrase keeps the phrase together. */
const BEFORE_PHRASE = -0.15;
/** A word that belongs to the next one should not end a line. */
const AFTER_SMALL_WORD = 0.5;

const PHRASE = new Set("and but or nor so yet because that which who when where while if as than then".split(" "));
const SMALL = new Set(
  "a an the of to in on at by for from with into my your his her its our their this that no not very".split(" "),
);

const bare = (word: string): string => word.toLowerCase().replace(/[^\p{L}\p{N}'’]/gu, "");
const endsSentence = (word: string): boolean => /[.!?…。！？]["”’)]*$/u.test(word);
const endsClause = (word: string): boolean => /[,;:–—、，]["”’)]*$/u.test(word);

/** Cost of a break between a word and the next. */
function breakCost(word: string, next: string): number {
  if (endsSentence(word)) return AFTER_SENTENCE;
  if (endsClause(word)) return AFTER_CLAUSE;
  if (SMALL.has(bare(word))) return AFTER_SMALL_WORD;
  return PHRASE.has(bare(next)) ? BEFORE_PHRASE : 0;
}

/** Words with the punctuation after them; characters of scripts without spaces stand alone. */
export const wordsOf = (text: string): string[] =>
  text.match(
    /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}][、。，！？]?|[^\s\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}]+/gu,
  ) ?? [];

const UNSPACED = /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}、。，！？]$/u;

/** Words joined to a text again. */
const joined = (words: readonly string[]): string =>
  words.reduce((text, word) => (text === "" ? word : `${text}${UNSPACED.test(text) ? "" : " "}${word}`), "");

/** Number of characters to be read in a text, with line feeds. */
export const lettersOf = (text: string): number => [...text.replaceAll("\n", " ")].length;

/**
 * Partitions words into groups at least cost, each within a length where its words allow: dynamic programming over the
 * breaks, after Knuth & Plass (1981), with the squared shortfall from an even share as badness.
 * @param count of the groups; as few as possible if null
 */
function parted(words: readonly string[], length: number, count: number | null): string[] {
  const all = lettersOf(joined(words));
  const least = Math.max(1, Math.ceil(all / length));
  for (let wanted = count ?? least; ; wanted++) {
    const found = inStretches(words, length, wanted, all / wanted);
    if (found || wanted >= words.length) return found ?? words.map((word) => word);
  }
}

function inStretches(words: readonly string[], length: number, count: number, even: number): string[] | null {
  const cost: number[][] = [[0]];
  const from: number[][] = [[]];
  for (let k = 1; k <= count; k++) {
    cost.push([]);
    from.push([]);
    for (let end = k; end <= words.length; end++) {
      let best = Infinity;
      for (let start = end - 1; start >= k - 1; start--) {
        const before = cost[k - 1]![start] ?? Infinity;
        const letters = lettersOf(joined(words.slice(start, end)));
        // A word that is too long by itself has to go somewhere.
        if (letters > length && end - start > 1) break;
        const uneven = ((letters - even) / even) ** 2;
        const broken = end < words.length ? breakCost(words[end - 1]!, words[end]!) : 0;
        if (before + uneven + broken < best) {
          best = before + uneven + broken;
          from[k]![end] = start;
        }
      }
      cost[k]![end] = best;
    }
  }
  if (!((cost[count]![words.length] ?? Infinity) < Infinity)) return null;
  const stretches: string[] = [];
  for (let k = count, end = words.length; k > 0; k--) {
    const start = from[k]![end]!;
    stretches.unshift(joined(words.slice(start, end)));
    end = start;
  }
  return stretches;
}

/** A text in as few lines as a length allows, balanced and with phrases together; the editor's own line breaks stay. */
export function linesOf(text: string, lineLength: number): string[] {
  const own = text.split("\n").map((line) => line.trim());
  if (own.length > 1) return own.filter((line) => line !== "");
  const words = wordsOf(text);
  return words.length === 0 ? [] : parted(words, lineLength, null);
}

/** Speech and its speaker, before it is cut into captions. */
export interface Said {
  text: string;
  speaker: string | null;
}

/** "ADA: …" or "Ada: …" at the start of a line. */
const SPEAKER = /^(?:-\s*)?(\p{Lu}[\p{L}\p{M}.'’ -]{0,30}?):\s+(?=\S)/u;

/** Paragraphs of a plain text, each with its speaker if it begins with a name. */
function paragraphsOf(text: string): Said[] {
  let speaker: string | null = null;
  return text
    .split(/\r\n|\r|\n/)
    .map((line) => line.trim())
    .flatMap((line) => {
      if (line === "") return [];
      const named = SPEAKER.exec(line);
      if (named) speaker = named[1]!;
      return [{ text: named ? line.slice(named[0].length) : line, speaker }];
    });
}

const sentences = new Intl.Segmenter("en", { granularity: "sentence" });

/**
 * Cuts speech into caption texts: by sentence, and a sentence that is too long by clause, phrase and length.
 * @param lineLength characters per line
 * @param lines per caption
 */
export function cutSentences(text: string, lineLength: number, lines: number): string[] {
  const length = lineLength * lines;
  const said = [...sentences.segment(text)].map(({ segment }) => segment.trim()).filter((part) => part !== "");
  const whole: string[] = [];
  for (const sentence of said) {
    const last = whole.at(-1);
    // A "Yes." does not stand by itself where it fits beside what follows.
    if (last !== undefined && lettersOf(last) <= lineLength / 2 && lettersOf(`${last} ${sentence}`) <= length) {
      whole[whole.length - 1] = `${last} ${sentence}`;
    } else whole.push(sentence);
  }
  return whole.flatMap((sentence) => parted(wordsOf(sentence), length, null));
}

/**
 * Cuts a plain text into captions. A line that begins with a name and a colon starts that speaker's part.
 * @param lineLength characters per line
 * @param lines per caption
 */
export const cutIntoCaptions = (text: string, lineLength: number, lines: number): Said[] =>
  paragraphsOf(text).flatMap(({ text: paragraph, speaker }) =>
    cutSentences(paragraph, lineLength, lines).map((part) => ({ text: part, speaker })),
  );
