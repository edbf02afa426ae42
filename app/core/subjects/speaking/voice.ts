import { type FrameRange, framesPerSecond, type Rate } from "../../time/rate";

/** Probability of speech in a film's sound, in even pieces. */
export interface VoiceActivity {
  /** Probability of speech in each piece, 0 to 255, from the film's first frame on. */
  speech: ArrayLike<number>;
  secondsPerPiece: number;
}

/** Probability above which a piece counts as speech, of 255. */
const SPEECH = 128;
/** Pauses shorter than this belong to the speech around them. */
const PAUSE_SECONDS = 0.35;

/** Probability of speech in each frame of a range, 0 to 255. */
export function speechIn(
  { speech, secondsPerPiece }: VoiceActivity,
  { start, end }: FrameRange,
  rate: Rate,
): Uint8Array {
  const fps = framesPerSecond(rate);
  return Uint8Array.from({ length: end - start }, (_, i) => {
    const piece = Math.floor((start + i + 0.5) / fps / secondsPerPiece);
    return speech[piece] ?? 0;
  });
}

/**
 * Whether somebody speaks in each of some consecutive frames, 1 or 0; short pauses are filled.
 * @param speech probability of speech in each, 0 to 255
 * @param seconds the longest pause that is filled
 */
export function voiced(speech: Uint8Array, rate: Rate, seconds = PAUSE_SECONDS): Uint8Array {
  const said = speech.map((probability) => (probability >= SPEECH ? 1 : 0));
  const pause = Math.round(seconds * framesPerSecond(rate));
  let last = -Infinity;
  for (let i = 0; i < said.length; i++) {
    if (!said[i]) continue;
    if (i - last <= pause) said.fill(1, last + 1, i);
    last = i;
  }
  return said;
}

/** Pauses as short as this occur between words; longer ones separate phrases. */
const WORD_PAUSE_SECONDS = 0.12;
/** Shortest voice that is a word. */
const LEAST_WORD_SECONDS = 0.08;

/**
 * The segments in which somebody speaks, separated by pauses.
 * @param speech probability of speech in each frame of a film, 0 to 255
 */
export function speechSegments(speech: Uint8Array, rate: Rate): FrameRange[] {
  const said = voiced(speech, rate, WORD_PAUSE_SECONDS);
  const segments: FrameRange[] = [];
  for (let start = 0; start < said.length; start++) {
    if (!said[start]) continue;
    let end = start;
    while (end < said.length && said[end]) end++;
    if (end - start >= LEAST_WORD_SECONDS * framesPerSecond(rate)) segments.push({ start, end });
    start = end;
  }
  return segments;
}
