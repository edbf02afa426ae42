/** Captions of a film: what is said, on the film's own grid, and as they are in a version that leaves some of it out. */
import { z } from "zod";
import { clamped } from "../numbers/clamped";
import { Id } from "../basics/ids";
import { Frame, type FrameRange, framesPerSecond, type Rate, rangeLength } from "../time/rate";
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

/** No film has more. */
export const MOST_CAPTIONS = 20_000;
/** Letters of a caption. */
export const MOST_CAPTION_TEXT = 500;

/** A caption over frames of a film, or of a version of it. */
export const Caption = z.object({
  id: Id,
  start: Frame,
  end: Frame,
  /** Lines, parted by line feeds where the editor has broken them; nothing but text. */
  text: z.string().max(MOST_CAPTION_TEXT),
  /** Who speaks: a name, or the letter of somebody who was recognised. */
  speaker: z.string().trim().min(1).max(60).nullable(),
});
export type Caption = z.infer<typeof Caption>;

/** What a caption says, and when. */
export type CaptionText = Omit<Caption, "id">;

/** The order of captions. */
export const byStart = (a: Caption, b: Caption): number => a.start - b.start || a.end - b.end || (a.id < b.id ? -1 : 1);

/** Captions that were timed at another rate than the film's: each stays at the frame that it was at. */
export function retimed<T extends Pick<CaptionCue, "start" | "end">>(cues: readonly T[], fps: number, rate: Rate): T[] {
  const factor = fps / framesPerSecond(rate);
  return cues.map((cue) => ({ ...cue, start: cue.start * factor, end: cue.end * factor }));
}

/**
 * Captions of a file on the grid of a film. What lies beyond the film is left out.
 *
 * @param offsetSeconds by which all of them come later
 */
export function captionsOf(cues: readonly CaptionCue[], rate: Rate, frames: number, offsetSeconds = 0): CaptionText[] {
  const fps = framesPerSecond(rate);
  const frameOf = (seconds: number) => clamped(Math.round((seconds + offsetSeconds) * fps), 0, frames);
  return cues
    .map(({ start, end, text, speaker }) => ({
      start: frameOf(start),
      end: frameOf(end),
      text: text.slice(0, MOST_CAPTION_TEXT),
      speaker: speaker?.trim().slice(0, 60) || null,
    }))
    .filter((caption) => rangeLength(caption) > 0);
}

/**
 * Captions as they are in a version that shows only some of a film, in frames of that version: what is left out takes its
 * part of a caption with it.
 *
 * @param kept in order and apart from each other
 */
export function captionsIn<T extends CaptionText>(captions: readonly T[], kept: readonly FrameRange[]): T[] {
  let before = 0;
  const shown = kept.flatMap((range) => {
    const by = before - range.start;
    before += rangeLength(range);
    return captions.flatMap((caption) =>
      clipRanges([caption], range).map(({ start, end }) => ({ ...caption, start: start + by, end: end + by })),
    );
  });
  // One that goes on beyond what is left out is still one.
  const joined: T[] = [];
  for (const caption of shown.sort((a, b) => a.start - b.start)) {
    const last = joined.at(-1);
    if (last && last.end === caption.start && last.text === caption.text && last.speaker === caption.speaker) {
      joined[joined.length - 1] = { ...last, end: caption.end };
    } else joined.push(caption);
  }
  return joined;
}
