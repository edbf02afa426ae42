import { type FrameRange, inRange } from "../../time/rate";
import type { Mark } from "./follow-thing";

/** A mark with its thing. */
export interface ThingMark extends Mark {
  thing: string;
}

/** A marked thing in a shot. */
export interface MarkedThing {
  /** Id of its track. */
  id: string;
  shot: FrameRange;
  /** In order of their frames, one per frame. */
  marks: Mark[];
  /** Everything that determines its track, as text. */
  basis: string;
}

const TRACK_PREFIX = "mark-";

/** Id of the track of a marked thing. */
export const markTrackId = (thing: string): string => `${TRACK_PREFIX}${thing}`;

/** The marked thing of a track; null for a track that was found. */
export const thingOfTrack = (trackId: string): string | null =>
  trackId.startsWith(TRACK_PREFIX) ? trackId.slice(TRACK_PREFIX.length) : null;

/** The things marked in a shot. */
export function markedThings(marks: readonly ThingMark[], { start, end }: FrameRange): MarkedThing[] {
  const shot = { start, end };
  const inside = marks.filter(({ frame }) => inRange(frame, shot));
  return [...new Set(inside.map(({ thing }) => thing))].map((thing) => {
    const own = inside
      .filter((mark) => mark.thing === thing)
      .map(({ frame, box }) => ({ frame, box }))
      .sort((a, b) => a.frame - b.frame);
    return { id: markTrackId(thing), shot, marks: own, basis: JSON.stringify([thing, start, end, own]) };
  });
}
