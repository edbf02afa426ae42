/** Times captions by the speech found in a film. */
import { clamped } from "../numbers/clamped";
import { type FrameRange, framesPerSecond, type Rate, rangeLength } from "../time/rate";
import type { CaptionText } from "./caption";
import type { CaptionRules } from "./caption-settings";
import { syllablesOf } from "./syllables";

/** Most captions, and most speech segments, that are aligned as one group. */
const MOST_CAPTIONS_TOGETHER = 6;
const MOST_SEGMENTS_TOGETHER = 5;
/** Unevenness of speech: standard deviation of a group's length, as a share of the root of its length. */
const SPREAD = 0.55;
/**
 * Costs of a caption that ends within a segment, of a pause within a caption, of each second of that, and of speech without
 * a caption.
 */
const NO_PAUSE = 1.2;
const PAUSE_INSIDE = 0.7;
const PAUSE_SECOND = 2.5;
/** Seconds of a pause that surely ends a sentence, and the cost of each second that is missing, or in excess within one. */
const LONG_PAUSE = 0.4;
const END_PAUSE = 5;
const UNSAID = 3;
const UNSAID_SECOND = 2;
/** Most deviation from an even pace, as a share of all speech. */
const BAND = 0.2;
/** Seconds for which a caption may stay after its speech, so that it can be read. */
const HOLD = 0.6;

export interface Speech {
  /** Speech segments, in order, without overlap. */
  segments: readonly FrameRange[];
  /** Frames at which another speaker begins. */
  turns: readonly number[];
}

interface Step {
  captions: number;
  segments: number;
  cost: number;
}

/**
 * Aligns groups of captions with groups of speech segments at least cost: dynamic programming after Gale & Church, "A
 * Program for Aligning Sentences in Bilingual Corpora" (1993), with captions measured in syllables and speech in frames.
 */
function aligned(
  weights: readonly number[],
  endsSentence: readonly boolean[],
  segments: readonly FrameRange[],
  fps: number,
): Step[] {
  const [n, m] = [weights.length, segments.length];
  const lengths = segments.map((range) => rangeLength(range) / fps);
  const [saidBefore, spokenBefore] = [sums(weights), sums(lengths)];
  const [said, spoken] = [saidBefore[n]!, spokenBefore[m]!];
  const pauseBefore = (j: number) => (segments[j]!.start - segments[j - 1]!.end) / fps;
  const pace = said / spoken;
  // Pauses are longer after a sentence than within one.
  const endCost = (i: number, j: number) => {
    if (i === n || j === m) return 0;
    const pause = Math.min(LONG_PAUSE, pauseBefore(j));
    return END_PAUSE * (endsSentence[i - 1] ? LONG_PAUSE - pause : pause);
  };
  const best: (Step | null)[][] = Array.from({ length: n + 1 }, () => new Array<Step | null>(m + 1).fill(null));
  best[0]![0] = { captions: 0, segments: 0, cost: 0 };
  const reach = Math.max(6, Math.ceil(BAND * m));
  for (let i = 0; i <= n; i++) {
    const around = Math.round((saidBefore[i]! / said) * m);
    for (let j = Math.max(0, around - reach); j <= Math.min(m, around + reach); j++) {
      const here = best[i]![j];
      if (!here) continue;
      const offer = (captions: number, across: number, cost: number) => {
        const [to, at] = [best[i + captions]!, j + across];
        if (!to[at] || here.cost + cost < to[at].cost) to[at] = { captions, segments: across, cost: here.cost + cost };
      };
      if (j < m) offer(0, 1, UNSAID + UNSAID_SECOND * lengths[j]!);
      let pauses = 0;
      for (let across = 1; across <= MOST_SEGMENTS_TOGETHER && j + across <= m; across++) {
        if (across > 1) pauses += PAUSE_INSIDE + PAUSE_SECOND * pauseBefore(j + across - 1);
        for (let captions = 1; captions <= MOST_CAPTIONS_TOGETHER && i + captions <= n; captions++) {
          const expected = saidBefore[i + captions]! - saidBefore[i]!;
          const heard = pace * (spokenBefore[j + across]! - spokenBefore[j]!);
          const off = (heard - expected) ** 2 / (2 * SPREAD ** 2 * Math.max(1, expected));
          // Ends of captions that fall on pauses within the group do not count.
          const unpaused = NO_PAUSE * Math.max(0, captions - across);
          const inside = captions === 1 ? pauses : Math.max(0, pauses - PAUSE_INSIDE * (captions - 1));
          offer(captions, across, off + unpaused + inside + endCost(i + captions, j + across));
        }
      }
    }
  }
  const steps: Step[] = [];
  let j = m;
  while (j > 0 && !best[n]![j]) j--;
  for (let i = n; i > 0 || j > 0;) {
    const step = best[i]![j];
    if (!step) break;
    steps.unshift(step);
    i -= step.captions;
    j -= step.segments;
  }
  return steps;
}

const sums = (values: readonly number[]): number[] => {
  const all = [0];
  for (const value of values) all.push(all.at(-1)! + value);
  return all;
};

/**
 * The frame at which a share of the speech in some segments has passed; at a border, the end of one segment or the start of
 * the next.
 */
function frameAtShare(segments: readonly FrameRange[], share: number, side: "start" | "end"): number {
  const all = segments.reduce((sum, range) => sum + rangeLength(range), 0);
  let left = share * all;
  for (const [i, range] of segments.entries()) {
    const length = rangeLength(range);
    const isOver = side === "start" ? left < length - 0.5 : left <= length + 0.5;
    if (isOver || i === segments.length - 1) return range.start + Math.round(clamped(left, 0, length));
    left -= length;
  }
  return 0;
}

/** Start and end of each caption in a group: at a pause where one is near, else in proportion to syllables. */
function timesInGroup(
  weights: readonly number[],
  segments: readonly FrameRange[],
  turns: readonly number[],
): FrameRange[] {
  const before = sums(weights);
  const all = before.at(-1)!;
  const spoken = sums(segments.map(rangeLength));
  const length = spoken.at(-1)!;
  // Borders between segments, and changes of speaker within them, as shares of the speech.
  const anchors = [
    ...spoken.slice(1, -1),
    ...turns.flatMap((turn) => {
      const i = segments.findIndex(({ start, end }) => turn > start && turn < end);
      return i < 0 ? [] : [spoken[i]! + turn - segments[i]!.start];
    }),
  ].map((at) => at / length);
  const even = 1 / weights.length;
  const borders = before.slice(1, -1).map((at) => {
    const share = at / all;
    const near = anchors.filter((anchor) => Math.abs(anchor - share) < even / 2);
    return near.length > 0 ? near.reduce((a, b) => (Math.abs(a - share) <= Math.abs(b - share) ? a : b)) : share;
  });
  const shares = [0, ...borders.sort((a, b) => a - b), 1];
  return weights.map((_, i) => ({
    start: frameAtShare(segments, shares[i]!, "start"),
    end: frameAtShare(segments, shares[i + 1]!, "end"),
  }));
}

/**
 * Times captions by the voice. Each begins with its speech; it stays a little longer where it could not be read otherwise,
 * but never into the next one. Without speech, captions follow one another at reading pace.
 * @param said captions in order, or texts without times
 * @param range of the film in which they are said
 */
export function timeCaptions<T extends Pick<CaptionText, "text" | "speaker">>(
  said: readonly T[],
  { segments, turns }: Speech,
  range: FrameRange,
  rate: Rate,
  rules: CaptionRules,
): (T & FrameRange)[] {
  const fps = framesPerSecond(rate);
  const heard = segments
    .map(({ start, end }) => ({ start: Math.max(start, range.start), end: Math.min(end, range.end) }))
    .filter((part) => rangeLength(part) > 0);
  const weights = said.map(({ text }) => Math.max(0.5, syllablesOf(text)));
  const ends = said.map(({ text }) => /[.!?…。！？]["”’)]*$/u.test(text.trim()));
  const ranges = heard.length > 0 ? laid(weights, ends, heard, turns, fps) : evenly(weights, range);
  return said.map((caption, i) => {
    const { start, end } = ranges[i]!;
    const next = ranges[i + 1]?.start ?? range.end;
    const wanted = Math.max(rules.least, caption.text.length / rules.pace) * fps;
    const held = clamped(Math.min(end + HOLD * fps, start + wanted), end, next);
    return { ...caption, start, end: Math.max(start + 1, Math.round(held)) };
  });
}

function laid(
  weights: readonly number[],
  ends: readonly boolean[],
  segments: readonly FrameRange[],
  turns: readonly number[],
  fps: number,
) {
  const ranges: FrameRange[] = [];
  let [i, j] = [0, 0];
  for (const step of aligned(weights, ends, segments, fps)) {
    if (step.captions > 0) {
      ranges.push(...timesInGroup(weights.slice(i, i + step.captions), segments.slice(j, j + step.segments), turns));
    }
    i += step.captions;
    j += step.segments;
  }
  // Captions in excess of the speech follow one another at its end.
  const last = segments.at(-1)!.end;
  while (ranges.length < weights.length) ranges.push({ start: last, end: last });
  return apart(ranges);
}

/** Ensures that no two begin at the same frame. */
function apart(ranges: readonly FrameRange[]): FrameRange[] {
  let least = -1;
  return ranges.map(({ start, end }) => {
    const from = Math.max(start, least);
    least = from + 1;
    return { start: from, end: Math.max(end, from + 1) };
  });
}

/** In proportion to syllables over a whole range. */
function evenly(weights: readonly number[], { start, end }: FrameRange): FrameRange[] {
  const before = sums(weights);
  const at = (i: number) => start + Math.round(((end - start) * before[i]!) / before.at(-1)!);
  return apart(weights.map((_, i) => ({ start: at(i), end: at(i + 1) })));
}
