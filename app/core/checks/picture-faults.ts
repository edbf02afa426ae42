/** Ranges of a film that flash, stay black or are frozen, whatever a version shows of them. */
import { type Activity, CHANGE_UNIT, CONTRAST_UNIT } from "../activity/activity";
import { type FrameRange, framesPerSecond, type Rate, rangeLength } from "../time/rate";
import { clipRanges, joinRanges, rangesWhere } from "../time/ranges";
import { flagsTexts } from "../../texts/flags";
import type { CheckLimits } from "./check-settings";
import { type Flag, severityOf } from "./flag";

const t = flagsTexts.pictureFaults;

export interface PictureFaults {
  flashing: FrameRange[];
  black: FrameRange[];
  frozen: FrameRange[];
}

export const NO_FAULTS: PictureFaults = { flashing: [], black: [], frozen: [] };

/** Mean luma, and its standard deviation, of a black picture. */
const BLACK_LUMA = 26;
const BLACK_CONTRAST = 2.5;
/** Change of luma below any grain or compression noise. */
const FROZEN_CHANGE = 1 / 8;
/** Shortest range that is flagged, in seconds, whatever the limits. */
const LEAST_SECONDS = 0.2;

/**
 * A general flash, after WCAG 2.2, success criterion 2.3.1: a pair of opposing changes in brightness of a tenth of the
 * largest or more, the darker state of which is below 0.8. More than three within a second are too many. Mean luma stands
 * for relative luminance, of the whole picture.
 */
const FLASH_CHANGE = 0.1 * 255;
const FLASH_DARKER = 0.8 * 255;
const MOST_FLASHES = 3;

/** Frames at which brightness has changed direction by the amplitude of a flash, one per change. */
function turnsOf(light: Uint8Array): number[] {
  const turns: number[] = [];
  let [low, high] = [light[0] ?? 0, light[0] ?? 0];
  let way: "up" | "down" | null = null;
  light.forEach((value, frame) => {
    [low, high] = [Math.min(low, value), Math.max(high, value)];
    if (way !== "down" && high - value >= FLASH_CHANGE && value < FLASH_DARKER) {
      turns.push(frame);
      [way, low] = ["down", value];
    } else if (way !== "up" && value - low >= FLASH_CHANGE && low < FLASH_DARKER) {
      turns.push(frame);
      [way, high] = ["up", value];
    }
  });
  return turns;
}

/** @param activity from the film's first frame on; frames not known yet count as neither black nor frozen */
export function pictureFaults({ light, contrast, change }: Activity, rate: Rate): PictureFaults {
  const fps = framesPerSecond(rate);
  const whole = { start: 0, end: light.length };
  const long = (range: FrameRange) => rangeLength(range) >= LEAST_SECONDS * fps;
  const isBlack = (frame: number) => light[frame]! < BLACK_LUMA && contrast[frame]! * CONTRAST_UNIT < BLACK_CONTRAST;
  const turns = turnsOf(light);
  // Two changes make a flash.
  const counted = 2 * (MOST_FLASHES + 1);
  const flashing = turns.flatMap((end, i) => {
    const start = turns[i - counted + 1];
    return start !== undefined && end - start <= fps ? [{ start, end: end + 1 }] : [];
  });
  return {
    flashing: joinRanges(flashing),
    black: rangesWhere(whole, isBlack).filter(long),
    frozen: rangesWhere(whole, (frame) => change[frame]! * CHANGE_UNIT < FROZEN_CHANGE && !isBlack(frame)).filter(long),
  };
}

/** The faults that last longer than the limits within what a version shows of a shot. */
export function pictureFlags(
  { flashing, black, frozen }: PictureFaults,
  kept: readonly FrameRange[],
  limits: Pick<CheckLimits, "black" | "frozen">,
  rate: Rate,
): Flag[] {
  const fps = framesPerSecond(rate);
  const lasting = (ranges: readonly FrameRange[], seconds: number) =>
    kept.flatMap((part) => clipRanges(ranges, part)).filter((range) => rangeLength(range) >= seconds * fps);
  const flag = (kind: "flashing" | "black" | "frozen", text: (seconds: number) => string) => (range: FrameRange) => {
    const seconds = rangeLength(range) / fps;
    return { kind, range, frame: range.start, text: text(seconds), severity: severityOf(kind, 1, seconds) };
  };
  return [
    ...lasting(flashing, 0).map(flag("flashing", t.flashes)),
    ...lasting(black, limits.black).map(flag("black", t.black)),
    ...lasting(frozen, limits.frozen).map(flag("frozen", t.frozen)),
  ];
}
