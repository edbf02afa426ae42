/** The ranges of a film that a version shows. */
import { z } from "zod";
import { leftOutOfClips, type TrimmedClip } from "../clips/clip";
import { Frame, FrameRange, framesIn, frameToSeconds, type Rate } from "../time/rate";
import { joinRanges, withoutRanges } from "../time/ranges";

/** Most ranges left out of one version. */
const MOST_LEFT_OUT = 5000;

export const Trim = z.object({
  /** The first frame; null for the film's own. */
  in: Frame.nullable(),
  /** First frame no longer shown; null for the film's end. */
  out: Frame.nullable(),
  /** Ranges left out in between, in order and disjoint. */
  leftOut: z.array(FrameRange).max(MOST_LEFT_OUT),
});
export type Trim = z.infer<typeof Trim>;

/** The whole film. */
export const UNTRIMMED: Trim = { in: null, out: null, leftOut: [] };

/** Longest duration of a version in seconds, for places with a limit. */
export const LengthLimit = z.number().positive().max(86_400);

/** From the in point to the out point. */
export const inToOut = (trim: Trim, frames: number): FrameRange => ({ start: trim.in ?? 0, end: trim.out ?? frames });

/** The ranges of a film that all of its versions leave out. */
export interface LeftOut {
  shots: readonly (FrameRange & { excluded: boolean })[];
  clips: readonly TrimmedClip[];
}

/** The ranges of a film that a version shows. */
export function keptRanges(trim: Trim, frames: number, { shots, clips }: LeftOut): FrameRange[] {
  const gone = joinRanges([...trim.leftOut, ...shots.filter(({ excluded }) => excluded), ...leftOutOfClips(clips)]);
  return withoutRanges([inToOut(trim, frames)], gone);
}

/** A trim with more ranges left out. */
export const withLeftOut = (trim: Trim, ranges: readonly FrameRange[]): Trim => ({
  ...trim,
  leftOut: joinRanges([...trim.leftOut, ...ranges]),
});

/** A trim with ranges brought back. */
export const withBroughtBack = (trim: Trim, ranges: readonly FrameRange[]): Trim => ({
  ...trim,
  leftOut: withoutRanges(trim.leftOut, joinRanges(ranges)),
});

/** Seconds by which a version is too long; 0 where it is not, or has no limit. */
export function secondsOver(kept: readonly FrameRange[], rate: Rate, limitSeconds: number | null): number {
  if (limitSeconds === null) return 0;
  return Math.max(0, frameToSeconds(framesIn(kept), rate) - limitSeconds);
}
