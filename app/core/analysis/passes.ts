/** In which order a film is analysed: from where the editor is on, and then the rest, in passes. */
import { type FrameRange, inRange } from "../time/rate";
import { joinRanges, withoutRanges } from "../time/ranges";

/**
 * What of a film is still to be analysed, as ranges none of which lies on both sides of a border.
 *
 * @param borders frames at which the film is certain to begin anew, in order; its first is none
 */
export function gapsIn(frames: number, analysed: readonly FrameRange[], borders: readonly number[] = []): FrameRange[] {
  const parts = [0, ...borders].map((start, i) => ({ start, end: borders[i] ?? frames }));
  return withoutRanges(parts, joinRanges(analysed));
}

/**
 * The gap to go on with: the one that the wanted frame is in, or the next one after it, and at the end of the film the
 * first; undefined if there is none.
 */
export const nextGap = (gaps: readonly FrameRange[], wanted: number | null): FrameRange | undefined =>
  gaps.find(({ end }) => wanted !== null && wanted < end) ?? gaps[0];

/**
 * Whether a frame that somebody waits for is going to be reached soon by a pass, or is done.
 *
 * @param pass what is still to be finished of it
 * @param soonTo the last frame that counts as soon
 */
export const isReached = (wanted: number, analysed: readonly FrameRange[], pass: FrameRange, soonTo: number): boolean =>
  analysed.some((range) => inRange(wanted, range)) || (inRange(wanted, pass) && wanted <= soonTo);
