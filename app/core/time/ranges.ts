/** Sets of frames as lists of ranges: in order, none empty, none touching. */
import type { FrameRange } from "./rate";

/** The union of ranges, which may be in any order, empty, touching or overlapping. */
export function joinRanges(ranges: readonly FrameRange[]): FrameRange[] {
  const joined: FrameRange[] = [];
  for (const { start, end } of [...ranges].sort((a, b) => a.start - b.start)) {
    if (end <= start) continue;
    const last = joined.at(-1);
    if (last && start <= last.end) last.end = Math.max(last.end, end);
    else joined.push({ start, end });
  }
  return joined;
}

/** The intersection of ranges and bounds. */
export const clipRanges = (ranges: readonly FrameRange[], bounds: FrameRange): FrameRange[] =>
  ranges
    .map(({ start, end }) => ({ start: Math.max(start, bounds.start), end: Math.min(end, bounds.end) }))
    .filter(({ start, end }) => end > start);

/** The difference of ranges and others, which are as `joinRanges` returns them. */
export function withoutRanges(ranges: readonly FrameRange[], others: readonly FrameRange[]): FrameRange[] {
  return ranges.flatMap((range) => {
    const left: FrameRange[] = [];
    let { start } = range;
    for (const other of others) {
      if (other.end <= start) continue;
      if (other.start >= range.end) break;
      if (other.start > start) left.push({ start, end: other.start });
      start = other.end;
    }
    if (start < range.end) left.push({ start, end: range.end });
    return left;
  });
}

/** The parts of ranges inside each of several others, which are in order and disjoint as well. */
export function partsWithin(ranges: readonly FrameRange[], wholes: readonly FrameRange[]): FrameRange[][] {
  let at = 0;
  return wholes.map((whole) => {
    while (at < ranges.length && ranges[at]!.end <= whole.start) at++;
    let to = at;
    while (to < ranges.length && ranges[to]!.start < whole.end) to++;
    return clipRanges(ranges.slice(at, to), whole);
  });
}

/** Whether ranges are contained in others, which may be in any order. */
export const liesWithin = (ranges: readonly FrameRange[], others: readonly FrameRange[]): boolean =>
  withoutRanges(ranges, joinRanges(others)).length === 0;

/** The maximal ranges of frames for which a condition holds. */
export function rangesWhere({ start, end }: FrameRange, holds: (frame: number) => boolean): FrameRange[] {
  const ranges: FrameRange[] = [];
  for (let frame = start; frame < end; frame++) {
    if (!holds(frame)) continue;
    const last = ranges.at(-1);
    if (last?.end === frame) last.end++;
    else ranges.push({ start: frame, end: frame + 1 });
  }
  return ranges;
}

/** Ranges with gaps shorter than some frames closed. */
export function bridged(ranges: readonly FrameRange[], gap: number): FrameRange[] {
  const joined: FrameRange[] = [];
  for (const range of ranges) {
    const last = joined.at(-1);
    if (last && range.start - last.end < gap) last.end = range.end;
    else joined.push({ ...range });
  }
  return joined;
}
