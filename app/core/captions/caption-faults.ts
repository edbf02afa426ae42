/** What makes a caption hard to read, and how to mend it. */
import { framesPerSecond, type Rate, rangeLength } from "../time/rate";
import { cutSentences, lettersOf, linesOf } from "./break-text";
import type { Caption } from "./caption";
import type { CaptionRules } from "./caption-settings";
import { splitCaption } from "./edit-captions";

export type FaultKind = "lines" | "line-length" | "pace" | "short" | "long" | "gap" | "overlap" | "empty";

export interface CaptionFault {
  kind: FaultKind;
  /** The measured value and its limit: characters, characters per second, or seconds. */
  value: number;
  limit: number;
}

/** Characters per second of a caption. */
export const paceOf = (caption: Caption, rate: Rate): number =>
  lettersOf(caption.text) / (Math.max(1, rangeLength(caption)) / framesPerSecond(rate));

/**
 * The rules that a caption breaks.
 * @param next the caption after it
 * @param lineLength characters per line
 */
export function captionFaults(
  caption: Caption,
  next: Caption | undefined,
  rules: CaptionRules,
  lineLength: number,
  rate: Rate,
): CaptionFault[] {
  const fps = framesPerSecond(rate);
  const lines = linesOf(caption.text, lineLength);
  const longest = Math.max(0, ...lines.map(lettersOf));
  const seconds = rangeLength(caption) / fps;
  const pace = paceOf(caption, rate);
  const gap = next ? (next.start - caption.end) / fps : null;
  // A frame more or less is no fault.
  const frame = 1 / fps;
  const faults: (CaptionFault | null)[] = [
    caption.text.trim() === "" ? { kind: "empty", value: 0, limit: 1 } : null,
    lines.length > rules.lines ? { kind: "lines", value: lines.length, limit: rules.lines } : null,
    longest > lineLength ? { kind: "line-length", value: longest, limit: lineLength } : null,
    pace > rules.pace ? { kind: "pace", value: pace, limit: rules.pace } : null,
    seconds < rules.least - frame ? { kind: "short", value: seconds, limit: rules.least } : null,
    seconds > rules.most + frame ? { kind: "long", value: seconds, limit: rules.most } : null,
    gap !== null && gap < 0 ? { kind: "overlap", value: -gap, limit: 0 } : null,
    gap !== null && gap > 0 && gap < rules.gap - frame ? { kind: "gap", value: gap, limit: rules.gap } : null,
  ];
  return faults.filter((fault) => fault !== null);
}

/** The replacement of a mended caption. */
export interface Mended {
  removed: string[];
  put: Caption[];
}

/**
 * Mends a caption as far as possible without changing others: too much text is split, missing time is taken from the gaps
 * around it, excess time given back, and a gap that would flicker is closed.
 * @param before the caption before it
 */
export function mendCaption(
  caption: Caption,
  before: Caption | undefined,
  next: Caption | undefined,
  rules: CaptionRules,
  lineLength: number,
  rate: Rate,
  newId: () => string,
): Mended {
  if (caption.text.trim() === "") return { removed: [caption.id], put: [] };
  const fps = framesPerSecond(rate);
  const parts = splitToFit(caption, rules, lineLength, newId);
  const last = parts.at(-1)!;
  const wanted = Math.ceil(Math.max(rules.least, lettersOf(last.text) / rules.pace) * fps);
  const most = Math.floor(rules.most * fps);
  const free = next ? next.start : Infinity;
  let end = Math.min(free, last.end, last.start + most);
  if (end - last.start < wanted) end = Math.min(free, last.start + wanted);
  const gap = (free - end) / fps;
  if (gap > 0 && gap < rules.gap) end = free;
  parts[parts.length - 1] = { ...last, end: Math.max(last.start + 1, end) };
  // The remainder is taken from before it.
  const first = parts[0]!;
  const missing =
    parts.length === 1 ? Math.max(0, wanted - (first === last ? end - first.start : rangeLength(first))) : 0;
  if (missing > 0) parts[0] = { ...parts[0]!, start: Math.max(before?.end ?? 0, first.start - missing) };
  return { removed: [], put: parts };
}

/** Splits a caption until none has more or longer lines than the rules allow. */
function splitToFit(caption: Caption, rules: CaptionRules, lineLength: number, newId: () => string): Caption[] {
  const lines = linesOf(caption.text, lineLength);
  const fits = lines.length <= rules.lines && lines.every((line) => lettersOf(line) <= lineLength);
  const flat = caption.text.replaceAll("\n", " ");
  const texts = fits ? [] : cutSentences(flat, lineLength, rules.lines);
  if (texts.length < 2) return [fits ? caption : { ...caption, text: flat }];
  const parts: Caption[] = [];
  let rest: Caption = { ...caption, text: texts.join(" ") };
  for (const text of texts.slice(0, -1)) {
    const halves = splitCaption(rest, text.length, newId());
    if (!halves) break;
    parts.push(halves[0]);
    rest = halves[1];
  }
  return [...parts, rest];
}
