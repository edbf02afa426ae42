import { type z } from "zod";
import { Difference } from "~/core/edits/difference";
import { Checkpoint } from "~/core/edits/checkpoint";
import type { Db } from "./database.server";

/** A state with its name, and all that was set in the film then. */
export const StoredCheckpoint = Checkpoint.extend({ kept: Difference });
export type StoredCheckpoint = z.infer<typeof StoredCheckpoint>;

interface RawCheckpoint extends Checkpoint {
  kept: string;
}

const toState = ({ kept, ...named }: RawCheckpoint): StoredCheckpoint =>
  StoredCheckpoint.parse({ ...named, kept: JSON.parse(kept) as unknown });

const COLUMNS = "id, name, made_at AS madeAt, kept";

/** The states of a film that have a name, the newest first. */
export const listCheckpoints = (db: Db, filmId: string): StoredCheckpoint[] =>
  db
    .prepare<[string], RawCheckpoint>(
      `SELECT ${COLUMNS} FROM checkpoints WHERE film_id = ? AND deleted = 0 ORDER BY made_at DESC, rowid DESC`,
    )
    .all(filmId)
    .map(toState);

/** The same by their names alone. */
export const listCheckpointNames = (db: Db, filmId: string): Checkpoint[] =>
  db
    .prepare<[string], Checkpoint>(
      `SELECT id, name, made_at AS madeAt FROM checkpoints WHERE film_id = ? AND deleted = 0
       ORDER BY made_at DESC, rowid DESC`,
    )
    .all(filmId);

export function findCheckpoint(db: Db, filmId: string, id: string): StoredCheckpoint | null {
  const row = db
    .prepare<[string, string], RawCheckpoint>(
      `SELECT ${COLUMNS} FROM checkpoints WHERE film_id = ? AND id = ? AND deleted = 0`,
    )
    .get(filmId, id);
  return row ? toState(row) : null;
}

/** Whether a film has a state with this id, deleted or not. */
export const hasCheckpoint = (db: Db, filmId: string, id: string): boolean =>
  db.prepare("SELECT 1 FROM checkpoints WHERE film_id = ? AND id = ?").get(filmId, id) !== undefined;

export const addCheckpoint = (db: Db, filmId: string, { kept, ...named }: StoredCheckpoint): void =>
  void db
    .prepare(`INSERT INTO checkpoints (film_id, id, name, made_at, kept) VALUES (@filmId, @id, @name, @madeAt, @kept)`)
    .run({ filmId, ...named, kept: JSON.stringify(kept) });

/** Keeps something else under the name of a state. */
export const keepCheckpoint = (db: Db, filmId: string, id: string, kept: Difference): void =>
  void db.prepare("UPDATE checkpoints SET kept = ? WHERE film_id = ? AND id = ?").run(JSON.stringify(kept), filmId, id);

export const setDeleted = (db: Db, filmId: string, id: string, isDeleted: boolean): void =>
  void db.prepare("UPDATE checkpoints SET deleted = ? WHERE film_id = ? AND id = ?").run(isDeleted ? 1 : 0, filmId, id);
