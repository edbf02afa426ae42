import type { Box } from "~/core/geometry/box";
import type { ThingMark } from "~/core/subjects/marks/marked-things";
import { type PackedTrack, packTrack } from "~/core/subjects/tracking/packed-tracks";
import type { Track } from "~/core/subjects/tracking/track";
import { TrackEdit } from "~/core/subjects/tracking/edit-tracks";
import type { Db } from "./database.server";
import { raiseFindings } from "./films.server";
import { StoredTrack } from "./stored-tracks";

interface RawMark extends Box {
  thing: string;
  frame: number;
}

export const listMarks = (db: Db, filmId: string): ThingMark[] =>
  db
    .prepare<[string], RawMark>(
      "SELECT thing, frame, x, y, width, height FROM marks WHERE film_id = ? ORDER BY thing, frame",
    )
    .all(filmId)
    .map(({ thing, frame, ...box }) => ({ thing, frame, box }));

/** Sets or removes the mark of a thing at a frame. */
export function putMark(db: Db, filmId: string, thing: string, frame: number, box: Box | null): void {
  if (!box) {
    db.prepare("DELETE FROM marks WHERE film_id = ? AND thing = ? AND frame = ?").run(filmId, thing, frame);
    return;
  }
  db.prepare(
    "INSERT OR REPLACE INTO marks (film_id, thing, frame, x, y, width, height) VALUES (?, ?, ?, ?, ?, ?, ?)",
  ).run(filmId, thing, frame, box.x, box.y, box.width, box.height);
}

interface RawMarkTrack {
  id: number;
  basis: string;
  track: string;
}

/** Tracks of marked things: their ids, and what they were made from. */
export const listMarkTracks = (db: Db, filmId: string): { id: number; basis: string }[] =>
  db
    .prepare<[string], { id: number; basis: string }>(
      "SELECT rowid AS id, basis FROM mark_tracks WHERE film_id = ? ORDER BY rowid",
    )
    .all(filmId);

/** A track of a marked thing by its id. */
export function findMarkTrackById(db: Db, filmId: string, id: number): { basis: string; track: PackedTrack } | null {
  const row = db
    .prepare<[string, number], RawMarkTrack>(
      "SELECT rowid AS id, basis, track FROM mark_tracks WHERE film_id = ? AND rowid = ?",
    )
    .get(filmId, id);
  return row ? { basis: row.basis, track: StoredTrack.parse(JSON.parse(row.track)) } : null;
}

/** The track made from this basis; null if there is none yet. */
export function findMarkTrack(db: Db, filmId: string, basis: string): PackedTrack | null {
  const row = db
    .prepare<[string, string], { track: string }>("SELECT track FROM mark_tracks WHERE film_id = ? AND basis = ?")
    .get(filmId, basis);
  return row ? StoredTrack.parse(JSON.parse(row.track)) : null;
}

export function saveMarkTrack(db: Db, filmId: string, basis: string, track: Track): void {
  db.prepare("INSERT OR REPLACE INTO mark_tracks (film_id, basis, track) VALUES (?, ?, ?)").run(
    filmId,
    basis,
    JSON.stringify(packTrack(track)),
  );
  raiseFindings(db, filmId);
}

/** The editor's changes of tracks, by track id. */
export const listTrackEdits = (db: Db, filmId: string): Map<string, TrackEdit> =>
  new Map(
    db
      .prepare<[string], { track_id: string; edits: string }>("SELECT * FROM track_edits WHERE film_id = ?")
      .all(filmId)
      .map((row) => [row.track_id, TrackEdit.parse(JSON.parse(row.edits))]),
  );

/** Sets the change of a track; null restores it as it was found. */
export function putTrackEdit(db: Db, filmId: string, trackId: string, edit: TrackEdit | null): void {
  if (edit)
    db.prepare("INSERT OR REPLACE INTO track_edits (film_id, track_id, edits) VALUES (?, ?, ?)").run(
      filmId,
      trackId,
      JSON.stringify(edit),
    );
  else db.prepare("DELETE FROM track_edits WHERE film_id = ? AND track_id = ?").run(filmId, trackId);
}
