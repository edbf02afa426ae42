import { rangesOf, tracksInShot, type TrackOpinions } from "~/core/subjects/tracking/shot-tracks";
import { unpackTrack } from "~/core/subjects/tracking/packed-tracks";
import type { Track } from "~/core/subjects/tracking/track";
import type { Shot } from "~/core/shots/shot";
import type { FrameRange } from "~/core/time/rate";
import { listAnalysed, readTracks } from "~/db/analysis.server";
import type { Db } from "~/db/database.server";
import { findMarkTrack, listMarks, listTrackEdits } from "~/db/marks.server";
import { listPeople } from "~/db/people.server";

/** The present tracks of shots: those found, with the editor's changes, and marks. */
export function tracksOfShots(db: Db, filmId: string, shots: readonly FrameRange[]): Track[][] {
  const analysed = listAnalysed(db, filmId);
  const opinions: TrackOpinions = {
    marks: listMarks(db, filmId),
    trackEdits: listTrackEdits(db, filmId),
    people: listPeople(db, filmId),
  };
  const read = new Map<FrameRange, Track[]>();
  const tracksIn = (range: FrameRange): Track[] => {
    const tracks = read.get(range) ?? readTracks(db, filmId, range).map(unpackTrack);
    read.set(range, tracks);
    return tracks;
  };
  const trackOfMark = (basis: string) => {
    const track = findMarkTrack(db, filmId, basis);
    return track ? unpackTrack(track) : undefined;
  };
  return shots.map((shot) => {
    const ranges = rangesOf(shot, analysed).map((range) => ({ ...range, tracks: tracksIn(range) }));
    return tracksInShot(shot, ranges, trackOfMark, opinions);
  });
}

/** The same for one shot. */
export const tracksOfShot = (db: Db, filmId: string, shot: FrameRange): Track[] =>
  tracksOfShots(db, filmId, [shot])[0]!;

/** The same for the shots of a film's state, by their ids. */
export function tracksByShot(db: Db, filmId: string, shots: readonly Shot[]): (shotId: string) => Track[] {
  const byId = new Map(shots.map((shot) => [shot.id, shot]));
  return (shotId) => tracksOfShot(db, filmId, byId.get(shotId)!);
}
