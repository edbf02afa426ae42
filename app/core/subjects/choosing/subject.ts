import type { Track } from "../tracking/track";

/** What a window follows: a face with the body it belongs to, or one thing alone. */
export interface Subject {
  track: Track;
  body: Track | null;
}

/** A track with the body that belongs to it. */
export const subjectOf = (track: Track, tracks: readonly Track[]): Subject => ({
  track,
  body: tracks.find(({ id }) => id === track.personId) ?? (track.kind === "person" ? track : null),
});
