/** Captions of a film: what is said, on the film's own grid, and as they are in a version that leaves some of it out. */
import { clamped } from "../clamped";
import { type FrameRange, framesPerSecond, type Rate, rangeLength } from "../time/rate";
import { clipRanges } from "../time/ranges";

/** A caption as a file has it: seconds from the beginning of the film. */
export interface CaptionCue {
  start: number;
  end: number;
  /** Lines, parted by line feeds; nothing but text. */
  text: string;
  /** Who speaks, where the file says so. */
  speaker: string | null;
}

/** A caption over frames of a film, or of a version of it. */
export interface Caption extends FrameRange {
  text: string;
  speaker: string | null;
}

/**
 * Captions of a file on the grid of a film. What lies beyond the film is left out.
 *
 * @param offsetSeconds by which all of them come later
 */
export function captionsOf(cues: readonly CaptionCue[], rate: Rate, frames: number, offsetSeconds = 0): Caption[] {
  const fps = framesPerSecond(rate);
  const frameOf = (seconds: number) => clamped(Math.round((seconds + offsetSeconds) * fps), 0, frames);
  return cues
    .map(({ start, end, text, speaker }) => ({ start: frameOf(start), end: frameOf(end), text, speaker }))
    .filter((caption) => rangeLength(caption) > 0);
}

/**
 * Captions as they are in a version that shows only some of a film, in frames of that version: what is left out takes its
 * part of a caption with it.
 *
 * @param kept in order and apart from each other
 */
export function captionsIn(captions: readonly Caption[], kept: readonly FrameRange[]): Caption[] {
  let before = 0;
  const shown = kept.flatMap((range) => {
    const by = before - range.start;
    before += rangeLength(range);
    return captions.flatMap((caption) =>
      clipRanges([caption], range).map(({ start, end }) => ({ ...caption, start: start + by, end: end + by })),
    );
  });
  // One that goes on beyond what is left out is still one.
  const joined: Caption[] = [];
  for (const caption of shown.sort((a, b) => a.start - b.start)) {
    const last = joined.at(-1);
    if (last && last.end === caption.start && last.text === caption.text && last.speaker === caption.speaker) {
      joined[joined.length - 1] = { ...last, end: caption.end };
    } else joined.push(caption);
  }
  return joined;
}
