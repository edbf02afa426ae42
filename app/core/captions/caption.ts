/** Captions of a film on its own frame grid, and as they are in a version that leaves ranges out. */
import { z } from "zod";
import { clamped } from "../numbers/clamped";
import { Id } from "../basics/ids";
import { Frame, type FrameRange, framesPerSecond, type Rate, rangeLength } from "../time/rate";
import { clipRanges } from "../time/ranges";

/** A caption as a file has it: seconds from the beginning of the film. */
export interface CaptionCue {
  start: number;
  end: number;
  /** Plain text, its lines separated by line feeds. */
  text: string;
  /** The speaker, where the file names one. */
  speaker: string | null;
}

/** Most captions of a film. */
export const MOST_CAPTIONS = 20_000;
/** Most characters of a caption. */
export const MOST_CAPTION_TEXT = 500;

/** A caption over frames of a film, or of a version of it. */
export const Caption = z.object({
  id: Id,
  start: Frame,
  end: Frame,
  /** Plain text, its lines separated by line feeds where the editor has broken them. */
  text: z.string().max(MOST_CAPTION_TEXT),
  /** The speaker: a name, or the letter of a recognised person. */
  speaker: z.string().trim().min(1).max(60).nullable(),
});
export type Caption = z.infer<typeof Caption>;

/** A caption's text and time. */
export type CaptionText = Omit<Caption, "id">;

/** The order of captions. */
export const byStart = (a: Caption, b: Caption): number => a.start - b.start || a.end - b.end || (a.id < b.id ? -1 : 1);

/** Captions timed at another frame rate than the film's: each keeps its frame. */
export function retimed<T extends Pick<CaptionCue, "start" | "end">>(cues: readonly T[], fps: number, rate: Rate): T[] {
  const factor = fps / framesPerSecond(rate);
  return cues.map((cue) => ({ ...cue, start: cue.start * factor, end: cue.end * factor }));
}

/**
 * Captions of a file on a film's frame grid. Those beyond the film are discarded.
 * @param offsetSeconds by which all of them are delayed
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
 * Captions in a version that shows only parts of a film, in frames of that version; ranges left out shorten or remove
 * captions.
 * @param kept in order, without overlap
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
  // A caption that continues after a range left out is still one.
  const joined: T[] = [];
  for (const caption of shown.sort((a, b) => a.start - b.start)) {
    const last = joined.at(-1);
    if (last && last.end === caption.start && last.text === caption.text && last.speaker === caption.speaker) {
      joined[joined.length - 1] = { ...last, end: caption.end };
    } else joined.push(caption);
  }
  return joined;
}
