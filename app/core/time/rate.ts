import { z } from "zod";

/** Highest frame rate of a film, of which each field may become a frame. */
const MOST_RATE = 480;
/** Seconds per frame of the slowest film. */
const MOST_SECONDS_A_FRAME = 3600;

/**
 * Time on a film's own grid. A moment is an integer frame number; a rate is a ratio of integers, because 29.97 is
 * 30000/1001 and rounding would be visible after an hour.
 */
export const Rate = z
  .object({
    /** Frames … */
    num: z.int().positive(),
    /** … in this many seconds. */
    den: z.int().positive(),
  })
  .refine(({ num, den }) => num / den <= MOST_RATE && den / num <= MOST_SECONDS_A_FRAME, {
    error: `A rate is at most ${MOST_RATE} frames per second`,
  });
export type Rate = z.infer<typeof Rate>;

/** A frame of a film, counted from 0. */
export const Frame = z.int().min(0);

/** Half-open: `end` is the first frame after it. */
export const FrameRange = z
  .object({ start: Frame, end: Frame })
  .refine(({ start, end }) => start <= end, { error: "A range ends no earlier than it starts" });
export type FrameRange = z.infer<typeof FrameRange>;

export const framesPerSecond = (rate: Rate): number => rate.num / rate.den;

/** Start of a frame in seconds. */
export const frameToSeconds = (frame: number, rate: Rate): number => (frame * rate.den) / rate.num;

/**
 * Seconds at which to seek so that exactly this frame is shown: its middle. At its start a rounding error in the player's
 * clock would show the frame before.
 */
export const seekSeconds = (frame: number, rate: Rate): number => ((frame + 0.5) * rate.den) / rate.num;

/** The frame on screen for a player's media time, which is the frame's own start with rounding errors. */
export const mediaTimeToFrame = (seconds: number, rate: Rate): number =>
  Math.max(0, Math.round((seconds * rate.num) / rate.den));

/** Parses ffprobe's "30000/1001"; null if it is no positive ratio. */
export function parseRate(text: string): Rate | null {
  const match = /^(\d+)(?:\/(\d+))?$/.exec(text.trim());
  if (!match) return null;
  const num = Number(match[1]);
  const den = Number(match[2] ?? 1);
  return num > 0 && den > 0 ? { num, den } : null;
}

/** "29.97", "25", "60": as people write it. */
export const formatRate = (rate: Rate): string => String(Math.round(framesPerSecond(rate) * 1000) / 1000);

/** "0-45": a range as a key. */
export const rangeKey = ({ start, end }: FrameRange): string => `${start}-${end}`;

export const rangeLength = (range: FrameRange): number => range.end - range.start;

/** Each frame of a range. */
export const framesOf = ({ start, end }: FrameRange): number[] =>
  Array.from({ length: end - start }, (_, i) => start + i);

export const inRange = (frame: number, range: FrameRange): boolean => frame >= range.start && frame < range.end;

/** Number of frames in disjoint ranges. */
export const framesIn = (ranges: readonly FrameRange[]): number =>
  ranges.reduce((sum, range) => sum + rangeLength(range), 0);
