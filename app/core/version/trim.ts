/** The ranges of a film that a version shows. */
import { z } from "zod";
import { leftOutOfClips, type TrimmedClip } from "../clips/clip";
import { Frame, FrameRange, framesIn, frameToSeconds, type Rate } from "../time/rate";
import { joinRanges, withoutRanges } from "../time/ranges";

/** Nobody leaves more ranges out of one version. */
const MOST_LEFT_OUT = 5000;

export const Trim = z.object({
  /** The first frame; null for the film's own. */
  in: Frame.nullable(),
  /** The first frame that is not shown any more; null for the film's end. */
  out: Frame.nullable(),
  /** Ranges that are left out in between: in order and apart from each other. */
  leftOut: z.array(FrameRange).max(MOST_LEFT_OUT),
});
export type Trim = z.infer<typeof Trim>;

/** All of the film. */
export const UNTRIMMED: Trim = { in: null, out: null, leftOut: [] };

/** Seconds that a version may last, where it goes to a place with a limit. */
export const LengthLimit = z.number().positive().max(86_400);

/** From the in point to the out point. */
export const inToOut = (trim: Trim, frames: number): FrameRange => ({ start: trim.in ?? 0, end: trim.out ?? frames });

/** The ranges of a film that all of its versions leave out. */
export interface LeftOut {
  shots: readonly (FrameRange & { excluded: boolean })[];
  clips: readonly TrimmedClip[];
}

/** What a version shows of a film of so many frames. */
export function keptRanges(trim: Trim, frames: number, { shots, clips }: LeftOut): FrameRange[] {
  const gone = joinRanges([...trim.leftOut, ...shots.filter(({ excluded }) => excluded), ...leftOutOfClips(clips)]);
  return withoutRanges([inToOut(trim, frames)], gone);
}

/** What is left out when ranges are left out as well. */
export const withLeftOut = (trim: Trim, ranges: readonly FrameRange[]): Trim => ({
  ...trim,
  leftOut: joinRanges([...trim.leftOut, ...ranges]),
});

/** What is left out when ranges are brought back. */
export const withBroughtBack = (trim: Trim, ranges: readonly FrameRange[]): Trim => ({
  ...trim,
  leftOut: withoutRanges(trim.leftOut, joinRanges(ranges)),
});

/** Seconds by which what is kept is longer than it may be; 0 where it is not, or may be as long as it is. */
export function secondsOver(kept: readonly FrameRange[], rate: Rate, limitSeconds: number | null): number {
  if (limitSeconds === null) return 0;
  return Math.max(0, frameToSeconds(framesIn(kept), rate) - limitSeconds);
}
