import { editTracks } from "~/core/subjects/tracking/edit-tracks";
import { markedThings } from "~/core/subjects/marks/marked-things";
import type { Track } from "~/core/subjects/tracking/track";
import type { FrameRange } from "~/core/time/rate";
import { tracksOf } from "~/db/analysis.server";
import type { Db } from "~/db/database.server";
import { findMarkTrack, listMarks, listTrackEdits } from "~/db/marks.server";
import { listPeople } from "~/db/people.server";

/** All that can be followed in shots as they are now: what was found, as the editor has changed it, and the marks. */
export function foundTracks(db: Db, filmId: string, shots: readonly FrameRange[]): Track[][] {
  const found = tracksOf(db, filmId, shots);
  const edits = listTrackEdits(db, filmId);
  const people = listPeople(db, filmId);
  const marks = listMarks(db, filmId);
  return shots.map((shot, i) => {
    const marked = markedThings(marks, shot).flatMap(({ basis }) => findMarkTrack(db, filmId, basis) ?? []);
    return editTracks([...found[i]!, ...marked], edits, people);
  });
}

/** Text that changes when what `foundTracks` gives for the same shots does. */
export function foundVersion(db: Db, filmId: string, shots: readonly FrameRange[]): string {
  const marks = listMarks(db, filmId);
  const followed = shots
    .flatMap((shot) => markedThings(marks, shot))
    .filter(({ basis }) => findMarkTrack(db, filmId, basis))
    .map(({ basis }) => basis);
  const merged = listPeople(db, filmId).flatMap(({ id, mergedInto }) => (mergedInto ? [[id, mergedInto]] : []));
  return JSON.stringify([
    shots.map(({ start, end }) => [start, end]),
    followed,
    [...listTrackEdits(db, filmId)],
    merged,
  ]);
}
