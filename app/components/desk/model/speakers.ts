import type { Speech } from "~/core/captions/time-captions";
import { type FrameRange, rangeLength } from "~/core/time/rate";
import { clipRanges } from "~/core/time/ranges";
import type { DeskShot } from "./desk-types";

interface Spoken extends FrameRange {
  /** Name or letter of the speaker. */
  who: string;
}

/** Who was seen speaking, and when, in order. */
export const spokenIn = (shots: readonly Pick<DeskShot, "cast">[]): Spoken[] =>
  shots
    .flatMap(({ cast }) =>
      cast.flatMap(({ track, name, letter }) =>
        (track.speaking ?? []).map(({ start, end }) => ({ start, end, who: name ?? letter })),
      ),
    )
    .sort((a, b) => a.start - b.start);

/** Frames at which another speaker begins. */
export const turnsIn = (spoken: readonly Spoken[]): Speech["turns"] =>
  spoken.flatMap(({ start, who }, i) => (i > 0 && spoken[i - 1]!.who !== who ? [start] : []));

/** The speaker of most of a segment, if that is at least half; null where nobody was seen speaking. */
export function speakerIn(spoken: readonly Spoken[], range: FrameRange): string | null {
  const shares = new Map<string, number>();
  for (const turn of spoken) {
    if (turn.start >= range.end) break;
    const [part] = clipRanges([turn], range);
    if (part) shares.set(turn.who, (shares.get(turn.who) ?? 0) + rangeLength(part));
  }
  const [most] = [...shares].sort((a, b) => b[1] - a[1]);
  return most && most[1] >= rangeLength(range) / 2 ? most[0] : null;
}
