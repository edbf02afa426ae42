/** What a film lacks: pictures, decodable pictures, and its end. */
import type { FilmGrid } from "../time/film-grid";
import { type FrameRange, framesIn, framesPerSecond, frameToSeconds, type Rate, rangeLength } from "../time/rate";
import { bridged, clipRanges } from "../time/ranges";
import { formatTimecode } from "../time/timecode";
import { type Flag, severityOf } from "./flag";
import { flagsTexts } from "../../texts/flags";

const t = flagsTexts.lackingPictures;

export interface Lacking extends Pick<FilmGrid, "held" | "longHolds"> {
  /** Frames that are in the file but cannot be decoded, as far as the file has been analysed. */
  undecoded: readonly FrameRange[];
  /** Frames that the file announces after its end. */
  cutOff: number;
}

/** What a film lacks, by what is known of its file and what could not be decoded so far. */
export const lackingOf = (
  { grid: { held, longHolds }, cutOff }: { grid: Pick<FilmGrid, "held" | "longHolds">; cutOff: number },
  undecoded: readonly FrameRange[] = [],
): Lacking => ({ held, longHolds, cutOff, undecoded });

/** The last block of sound may outlast the picture by this much. */
const TAIL_FRAMES = 2;

const inSeconds = (range: FrameRange, rate: Rate): string => `${frameToSeconds(rangeLength(range), rate).toFixed(1)} s`;

const longest = (holds: readonly FrameRange[]): FrameRange | null =>
  holds.reduce<FrameRange | null>((best, hold) => (best && rangeLength(best) >= rangeLength(hold) ? best : hold), null);

/** Sentences about what a film lacks and where, without full stops; none if it is insignificant. */
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

/**
 * Flags of a shot for ranges with a held picture, or with pictures that cannot be decoded within a second of one another.
 */
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
