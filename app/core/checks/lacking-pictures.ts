/** What a film lacks: pictures of its own, pictures that can be decoded, and its end. */
import type { FilmGrid } from "../time/film-grid";
import { type FrameRange, framesIn, framesPerSecond, frameToSeconds, type Rate, rangeLength } from "../time/rate";
import { bridged, clipRanges } from "../time/ranges";
import { formatTimecode } from "../time/timecode";
import { type Flag, severityOf } from "./flag";
import { flagsTexts } from "../../texts/flags";

const t = flagsTexts.lackingPictures;

export interface Lacking extends Pick<FilmGrid, "held" | "longHolds"> {
  /** Frames whose pictures are in the file and cannot be decoded, as far as it has been looked through. */
  undecoded: readonly FrameRange[];
  /** Frames that the file claims to have after those that are in it. */
  cutOff: number;
}

/** What a film lacks, by what is known of its file and what could not be decoded so far. */
export const lackingOf = (
  { grid: { held, longHolds }, cutOff }: { grid: Pick<FilmGrid, "held" | "longHolds">; cutOff: number },
  undecoded: readonly FrameRange[] = [],
): Lacking => ({ held, longHolds, cutOff, undecoded });

/** Within this the sound's last block may outlast the picture; that is nothing to speak of. */
const TAIL_FRAMES = 2;

const inSeconds = (range: FrameRange, rate: Rate): string => `${frameToSeconds(rangeLength(range), rate).toFixed(1)} s`;

const longest = (holds: readonly FrameRange[]): FrameRange | null =>
  holds.reduce<FrameRange | null>((best, hold) => (best && rangeLength(best) >= rangeLength(hold) ? best : hold), null);

/** How much a film lacks, and where, a sentence each without its full stop; nothing if that is not to speak of. */
export function describeLacking({ held, longHolds, undecoded, cutOff }: Lacking, frames: number, rate: Rate): string[] {
  const said: string[] = [];
  if (cutOff > 0) {
    const seconds = inSeconds({ start: 0, end: cutOff }, rate);
    said.push(t.cutOffFile(cutOff, seconds));
  }
  if (undecoded.length > 0) {
    const first = undecoded[0]!.start;
    const count = framesIn(undecoded);
    said.push(t.notDecoded(count, frames, formatTimecode(first, rate)));
  }
  if (held > TAIL_FRAMES) {
    const worst = longest(longHolds);
    const where = worst ? t.longestHold(inSeconds(worst, rate), formatTimecode(worst.start, rate)) : "";
    said.push(t.repeatedFrames(held, frames, where));
  }
  return said;
}

/** Ranges of a shot in which one picture stands for long, or some cannot be decoded within a second of one another. */
export function lackingFlags(
  { longHolds, undecoded }: Pick<Lacking, "longHolds" | "undecoded">,
  shot: FrameRange,
  rate: Rate,
): Flag[] {
  const flag = (kind: "repeated-picture" | "undecoded-picture", range: FrameRange, text: string): Flag => {
    const severity = severityOf(kind, 1, frameToSeconds(rangeLength(range), rate));
    return { kind, range, frame: range.start, text, severity };
  };
  return [
    ...clipRanges(longHolds, shot).map((range) =>
      flag("repeated-picture", range, t.frozenInFilm(inSeconds(range, rate))),
    ),
    ...bridged(clipRanges(undecoded, shot), framesPerSecond(rate)).map((range) =>
      flag("undecoded-picture", range, t.notDecodedHere(framesIn(clipRanges(undecoded, range)))),
    ),
  ];
}
