import { type z } from "zod";
import { Difference } from "~/core/edits/difference";
import { NamedState } from "~/core/edits/named-state";
import type { Db } from "./database.server";

/** A state with its name, and all that was set in the film then. */
export const KeptState = NamedState.extend({ kept: Difference });
export type KeptState = z.infer<typeof KeptState>;

interface RawState extends NamedState {
  kept: string;
}

const toState = ({ kept, ...named }: RawState): KeptState =>
  KeptState.parse({ ...named, kept: JSON.parse(kept) as unknown });

const COLUMNS = "id, name, made_at AS madeAt, kept";

/** The states of a film that have a name, the newest first. */
export const listNamedStates = (db: Db, filmId: string): KeptState[] =>
  db
    .prepare<[string], RawState>(
      `SELECT ${COLUMNS} FROM named_states WHERE film_id = ? AND deleted = 0 ORDER BY made_at DESC, rowid DESC`,
    )
    .all(filmId)
    .map(toState);

/** The same by their names alone. */
export const listStateNames = (db: Db, filmId: string): NamedState[] =>
  db
    .prepare<[string], NamedState>(
      `SELECT id, name, made_at AS madeAt FROM named_states WHERE film_id = ? AND deleted = 0
       ORDER BY made_at DESC, rowid DESC`,
    )
    .all(filmId);

export function findNamedState(db: Db, filmId: string, id: string): KeptState | null {
  const row = db
    .prepare<[string, string], RawState>(
      `SELECT ${COLUMNS} FROM named_states WHERE film_id = ? AND id = ? AND deleted = 0`,
    )
    .get(filmId, id);
  return row ? toState(row) : null;
}

/** Whether a film has a state with this id, deleted or not. */
export const hasNamedState = (db: Db, filmId: string, id: string): boolean =>
  db.prepare("SELECT 1 FROM named_states WHERE film_id = ? AND id = ?").get(filmId, id) !== undefined;

export const addNamedState = (db: Db, filmId: string, { kept, ...named }: KeptState): void =>
  void db
    .prepare(`INSERT INTO named_states (film_id, id, name, made_at, kept) VALUES (@filmId, @id, @name, @madeAt, @kept)`)
    .run({ filmId, ...named, kept: JSON.stringify(kept) });

/** Keeps something else under the name of a state. */
export const keepNamedState = (db: Db, filmId: string, id: string, kept: Difference): void =>
  void db
    .prepare("UPDATE named_states SET kept = ? WHERE film_id = ? AND id = ?")
    .run(JSON.stringify(kept), filmId, id);

export const setDeleted = (db: Db, filmId: string, id: string, isDeleted: boolean): void =>
  void db
    .prepare("UPDATE named_states SET deleted = ? WHERE film_id = ? AND id = ?")
    .run(isDeleted ? 1 : 0, filmId, id);
