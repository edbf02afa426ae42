import { Caption } from "~/core/captions/caption";
import type { Db } from "./database.server";

/** Captions of a film, in order. */
export const listCaptions = (db: Db, filmId: string): Caption[] =>
  db
    .prepare<[string], Caption>(
      "SELECT id, start, end, text, speaker FROM captions WHERE film_id = ? ORDER BY start, end, id",
    )
    .all(filmId)
    .map((row) => Caption.parse(row));

/** Stores a caption, replacing the film's one with its id. */
export const putCaption = (db: Db, filmId: string, caption: Caption): void =>
  void db
    .prepare(
      `INSERT OR REPLACE INTO captions (film_id, id, start, end, text, speaker)
       VALUES (@filmId, @id, @start, @end, @text, @speaker)`,
    )
    .run({ filmId, ...caption });

export const deleteCaption = (db: Db, filmId: string, id: string): void =>
  void db.prepare("DELETE FROM captions WHERE film_id = ? AND id = ?").run(filmId, id);
