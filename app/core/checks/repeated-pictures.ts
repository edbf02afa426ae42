/** What a film lacks of pictures of its own: frames that repeat the one before. */
import type { FilmGrid } from "../time/film-grid";
import { type FrameRange, frameToSeconds, type Rate, rangeLength } from "../time/rate";
import { formatTimecode } from "../time/timecode";
import type { SecondLook } from "./second-looks";

/** Within this the sound's last block may outlast the picture; that is nothing to speak of. */
const TAIL_FRAMES = 2;

const inSeconds = (range: FrameRange, rate: Rate): string => `${frameToSeconds(rangeLength(range), rate).toFixed(1)} s`;

const longest = (holds: readonly FrameRange[]): FrameRange | null =>
  holds.reduce<FrameRange | null>((best, hold) => (best && rangeLength(best) >= rangeLength(hold) ? best : hold), null);

/**
 * How many frames repeat the one before, and where that lasts longest, in a sentence for people; null if there are none to
 * speak of.
 */
export function describeRepeated(
  { held, longHolds }: Pick<FilmGrid, "held" | "longHolds">,
  frames: number,
  rate: Rate,
): string | null {
  if (held <= TAIL_FRAMES) return null;
  const worst = longest(longHolds);
  const where = worst
    ? `; the longest freeze lasts ${inSeconds(worst, rate)}, at ${formatTimecode(worst.start, rate)}`
    : "";
  return `${held} of ${frames} frames repeat the previous one${where}`;
}

/** Places of a shot at which one picture stands for long. */
export const repeatedLooks = (longHolds: readonly FrameRange[], shot: FrameRange, rate: Rate): SecondLook[] =>
  longHolds.flatMap(({ start, end }): SecondLook[] => {
    const inShot = { start: Math.max(start, shot.start), end: Math.min(end, shot.end) };
    if (inShot.end <= inShot.start) return [];
    const text = `The picture freezes for ${inSeconds(inShot, rate)}: the file has no frames here`;
    return [{ kind: "repeated-picture", frame: inShot.start, text }];
  });
