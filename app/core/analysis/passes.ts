/** In which order a film is analysed: from where the editor is on, and then the rest, in passes. */
import { type FrameRange, inRange } from "../time/rate";
import { joinRanges, withoutRanges } from "../time/ranges";

/**
 * Ranges of a film that are still to be analysed, none across a border.
 * @param borders frames at which the film certainly begins anew, in order, after its first frame
 */
export function gapsIn(frames: number, analysed: readonly FrameRange[], borders: readonly number[] = []): FrameRange[] {
  const parts = [0, ...borders].map((start, i) => ({ start, end: borders[i] ?? frames }));
  return withoutRanges(parts, joinRanges(analysed));
}

/**
 * The gap to analyse next: the one with the wanted frame, the next one after it, or the first; undefined if there is none.
 */
export const nextGap = (gaps: readonly FrameRange[], wanted: number | null): FrameRange | undefined =>
  gaps.find(({ end }) => wanted !== null && wanted < end) ?? gaps[0];

/**
 * Whether a frame that is waited for is analysed, or will be soon by the present pass.
 * @param pass the rest of the present pass
 * @param soonTo last frame that counts as soon
 */
export const isReached = (wanted: number, analysed: readonly FrameRange[], pass: FrameRange, soonTo: number): boolean =>
  analysed.some((range) => inRange(wanted, range)) || (inRange(wanted, pass) && wanted <= soonTo);
