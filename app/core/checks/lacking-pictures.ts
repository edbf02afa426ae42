/** What a film lacks: pictures of its own, pictures that can be decoded, and its end. */
import type { FilmGrid } from "../time/film-grid";
import { type FrameRange, framesIn, frameToSeconds, type Rate, rangeLength } from "../time/rate";
import { formatTimecode } from "../time/timecode";
import type { SecondLook } from "./second-looks";
import { looksTexts } from "../../texts/looks";

const t = looksTexts.lackingPictures;

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
    said.push(t.theFileIsCutOff(cutOff, seconds));
  }
  if (undecoded.length > 0) {
    const first = undecoded[0]!.start;
    const count = framesIn(undecoded);
    said.push(t.ofFramesCannotBeDecoded(count, frames, formatTimecode(first, rate)));
  }
  if (held > TAIL_FRAMES) {
    const worst = longest(longHolds);
    const where = worst ? t.theLongestFreezeLastsAt(inSeconds(worst, rate), formatTimecode(worst.start, rate)) : "";
    said.push(t.ofFramesRepeatThePrevious(held, frames, where));
  }
  return said;
}

/** The parts of ranges that lie in a shot. */
const partsIn = (shot: FrameRange, ranges: readonly FrameRange[]): FrameRange[] =>
  ranges
    .map(({ start, end }) => ({ start: Math.max(start, shot.start), end: Math.min(end, shot.end) }))
    .filter((part) => rangeLength(part) > 0);

/** Places of a shot at which one picture stands for long, or cannot be decoded; of the latter the first, with their number. */
export function lackingLooks(
  { longHolds, undecoded }: Pick<Lacking, "longHolds" | "undecoded">,
  shot: FrameRange,
  rate: Rate,
): SecondLook[] {
  const looks = partsIn(shot, longHolds).map((part): SecondLook => {
    const text = t.thePictureFreezesForThe(inSeconds(part, rate));
    return { kind: "repeated-picture", frame: part.start, text };
  });
  const broken = partsIn(shot, undecoded);
  if (broken.length > 0) {
    const text = t.cannotBeDecodedThePrevious(framesIn(broken));
    looks.push({ kind: "undecoded-picture", frame: broken[0]!.start, text });
  }
  return looks;
}
