/** Edits of captions; each returns the result, and changes nothing itself. */
import { clamped } from "../numbers/clamped";
import { type FrameRange, rangeLength } from "../time/rate";
import { type Caption, MOST_CAPTION_TEXT } from "./caption";
import { syllablesOf } from "./syllables";

/**
 * Splits a caption at a character; time is divided by syllables. Null where a side would be empty, or there are too few
 * frames.
 */
export function splitCaption(caption: Caption, letter: number, newId: string): [Caption, Caption] | null {
  const [first, second] = [caption.text.slice(0, letter).trim(), caption.text.slice(letter).trim()];
  if (first === "" || second === "" || rangeLength(caption) < 2) return null;
  const share = syllablesOf(first) / Math.max(0.1, syllablesOf(first) + syllablesOf(second));
  const at = clamped(caption.start + Math.round(share * rangeLength(caption)), caption.start + 1, caption.end - 1);
  return [
    { ...caption, text: first, end: at },
    { ...caption, id: newId, text: second, start: at },
  ];
}

/** Merges captions into one, in the place of the first. */
export function mergeCaptions(captions: readonly Caption[]): Caption {
  const [first] = captions;
  const text = captions.map((caption) => caption.text.replaceAll("\n", " ")).join(" ");
  return {
    ...first!,
    text: text.slice(0, MOST_CAPTION_TEXT),
    end: Math.max(...captions.map(({ end }) => end)),
    speaker: captions.every(({ speaker }) => speaker === first!.speaker) ? first!.speaker : null,
  };
}

/**
 * Shifts captions by some frames; what reaches beyond the film is cut off, and captions entirely beyond it stay at its
 * border.
 */
export const shiftCaptions = (captions: readonly Caption[], by: number, frames: number): Caption[] =>
  captions.map((caption) => {
    const start = clamped(caption.start + by, 0, frames - 1);
    return { ...caption, start, end: clamped(caption.end + by, start + 1, frames) };
  });

/** Matches a text regardless of case. */
const pattern = (wanted: string): RegExp => new RegExp(wanted.replace(/[.*+?^${}()|[\]\\]/g, String.raw`\$&`), "giu");

/** The captions that contain a text. */
export const captionsWith = (captions: readonly Caption[], wanted: string): Caption[] =>
  wanted === "" ? [] : captions.filter(({ text }) => pattern(wanted).test(text));

/** Those captions with another text in its place; unchanged ones are omitted. */
export const replaceInCaptions = (captions: readonly Caption[], wanted: string, by: string): Caption[] =>
  captionsWith(captions, wanted).map((caption) => ({
    ...caption,
    text: caption.text.replace(pattern(wanted), () => by).slice(0, MOST_CAPTION_TEXT),
  }));

/** Where ends of captions snap: at cuts, and at borders of speech. */
export interface SnapTo {
  cuts: readonly number[];
  speech: readonly FrameRange[];
  /** Snapping distance in frames. */
  reach: number;
  /** Frames around a cut within which a caption's end moves onto it: it would flash. */
  flash: number;
}

/** The frame to which an end of a caption snaps. */
export function snapped(frame: number, { cuts, speech, reach, flash }: SnapTo): number {
  const near = (places: readonly number[], most: number) =>
    places
      .filter((place) => Math.abs(place - frame) <= most)
      .sort((a, b) => Math.abs(a - frame) - Math.abs(b - frame))[0];
  const borders = speech.flatMap(({ start, end }) => [start, end]);
  return near(cuts, Math.max(reach, flash)) ?? near(borders, reach) ?? frame;
}

/**
 * Moves ends that fall a few frames before or after a cut onto it, where the caption can do without those frames.
 * @param flash most frames that are given up
 */
export const offCuts = <T extends FrameRange>(captions: readonly T[], cuts: readonly number[], flash: number): T[] =>
  captions.map((caption) => {
    const later = cuts.find((cut) => cut > caption.start && cut - caption.start <= flash) ?? caption.start;
    const earlier = cuts.findLast((cut) => cut < caption.end && caption.end - cut <= flash) ?? caption.end;
    const [start, end] = [later < caption.end ? later : caption.start, earlier > caption.start ? earlier : caption.end];
    return end > start ? { ...caption, start, end } : caption;
  });

/** How a caption is dragged: as a whole, or by an end. */
export type CaptionGrip = "whole" | "start" | "end";

/**
 * A caption after a drag, between its neighbours and at least a frame long.
 * @param room from the end of the one before to the start of the next
 */
export function dragCaption(
  caption: Caption,
  grip: CaptionGrip,
  by: number,
  room: FrameRange,
  snap: SnapTo | null,
): Caption {
  const rest = (frame: number) => (snap ? snapped(frame, snap) : frame);
  const length = rangeLength(caption);
  if (grip === "whole") {
    const start = caption.start + by;
    // The end that snaps takes the other one along.
    const [atStart, atEnd] = [rest(start), rest(start + length)];
    const to = atStart !== start ? atStart : atEnd - length;
    const first = clamped(to, room.start, Math.max(room.start, room.end - length));
    return { ...caption, start: first, end: Math.min(room.end, first + length) };
  }
  if (grip === "start") return { ...caption, start: clamped(rest(caption.start + by), room.start, caption.end - 1) };
  return { ...caption, end: clamped(rest(caption.end + by), caption.start + 1, room.end) };
}

/** The room for a caption between its neighbours. */
export function roomOf(captions: readonly Caption[], caption: Caption, frames: number): FrameRange {
  const others = captions.filter(({ id }) => id !== caption.id);
  const before = others.filter(({ start }) => start < caption.start).map(({ end }) => end);
  const after = others.filter(({ start }) => start > caption.start).map(({ start }) => start);
  return {
    start: Math.min(caption.start, Math.max(0, ...before)),
    end: Math.max(caption.end, Math.min(frames, ...after)),
  };
}
