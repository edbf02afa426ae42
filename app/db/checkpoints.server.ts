import { type z } from "zod";
import { Difference } from "~/core/edits/difference";
import { Checkpoint } from "~/core/edits/checkpoint";
import type { Db } from "./database.server";

/** A checkpoint with everything that was set in the film then. */
export const StoredCheckpoint = Checkpoint.extend({ difference: Difference });
export type StoredCheckpoint = z.infer<typeof StoredCheckpoint>;

interface RawCheckpoint extends Checkpoint {
  difference: string;
}

const toState = ({ difference, ...named }: RawCheckpoint): StoredCheckpoint =>
  StoredCheckpoint.parse({ ...named, difference: JSON.parse(difference) as unknown });

const COLUMNS = "id, name, made_at AS madeAt, difference";

/** The checkpoints of a film, newest first. */
export const listCheckpoints = (db: Db, filmId: string): StoredCheckpoint[] =>
  db
    .prepare<[string], RawCheckpoint>(
      `SELECT ${COLUMNS} FROM checkpoints WHERE film_id = ? AND deleted = 0 ORDER BY made_at DESC, rowid DESC`,
    )
    .all(filmId)
    .map(toState);

/** Names of the checkpoints of a film, newest first. */
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

/** Whether a film has a checkpoint with this id, deleted or not. */
export const hasCheckpoint = (db: Db, filmId: string, id: string): boolean =>
  db.prepare("SELECT 1 FROM checkpoints WHERE film_id = ? AND id = ?").get(filmId, id) !== undefined;

export const addCheckpoint = (db: Db, filmId: string, { difference, ...named }: StoredCheckpoint): void =>
  void db
    .prepare(
      `INSERT INTO checkpoints (film_id, id, name, made_at, difference) VALUES (@filmId, @id, @name, @madeAt, @difference)`,
    )
    .run({ filmId, ...named, difference: JSON.stringify(difference) });

/** Replaces the content of a checkpoint. */
export const saveCheckpoint = (db: Db, filmId: string, id: string, difference: Difference): void =>
  void db
    .prepare("UPDATE checkpoints SET difference = ? WHERE film_id = ? AND id = ?")
    .run(JSON.stringify(difference), filmId, id);

export const setDeleted = (db: Db, filmId: string, id: string, isDeleted: boolean): void =>
  void db.prepare("UPDATE checkpoints SET deleted = ? WHERE film_id = ? AND id = ?").run(isDeleted ? 1 : 0, filmId, id);
