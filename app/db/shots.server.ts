import type { Db } from "./database.server";

export interface ShotRow {
  id: string;
  start: number;
  end: number;
  /** Whom to follow: the first choice, nothing, or a track by its id. */
  subject: string;
}

interface RawShot {
  id: string;
  start_frame: number;
  end_frame: number;
  subject: string;
}

export const listShots = (db: Db, filmId: string): ShotRow[] =>
  db
    .prepare<[string], RawShot>("SELECT * FROM shots WHERE film_id = ? ORDER BY start_frame")
    .all(filmId)
    .map((row) => ({ id: row.id, start: row.start_frame, end: row.end_frame, subject: row.subject }));

/** Puts the shots of an analysis in the place of all that there were. */
export function replaceShots(
  db: Db,
  filmId: string,
  shots: readonly { id: string; start: number; end: number }[],
): void {
  db.transaction(() => {
    db.prepare("DELETE FROM shots WHERE film_id = ?").run(filmId);
    const insert = db.prepare("INSERT INTO shots (id, film_id, start_frame, end_frame) VALUES (?, ?, ?, ?)");
    for (const shot of shots) insert.run(shot.id, filmId, shot.start, shot.end);
  })();
}

/** The subject of a shot of this film, or null if there is no such shot. */
export const shotSubject = (db: Db, filmId: string, shotId: string): string | null =>
  db
    .prepare<[string, string], { subject: string }>("SELECT subject FROM shots WHERE id = ? AND film_id = ?")
    .get(shotId, filmId)?.subject ?? null;

export const setShotSubject = (db: Db, shotId: string, subject: string): void =>
  void db.prepare("UPDATE shots SET subject = ? WHERE id = ?").run(subject, shotId);
