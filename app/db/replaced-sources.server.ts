import { z } from "zod";
import { Project } from "~/core/formats/project";
import type { Db } from "./database.server";
import { addCheckpoint, StoredCheckpoint, listCheckpoints } from "./checkpoints.server";

const StoredEdits = z.array(
  z.object({
    sequence: z.int(),
    command: z.string(),
    inverse: z.string(),
    undone: z.int(),
    sentence: z.string().nullable(),
    madeAt: z.int().nullable().default(null),
  }),
);
const StoredStates = z.array(StoredCheckpoint);

/** A film before its file was replaced. */
export interface ReplacedSource {
  /** Milliseconds since 1970. */
  replacedAt: number;
  /** As it was stored with the film. */
  file: string;
  project: Project;
  edits: z.infer<typeof StoredEdits>;
  checkpoints: StoredCheckpoint[];
}

interface RawReplaced {
  replaced_at: number;
  file: string;
  project: string;
  edits: string;
  checkpoints: string;
}

/** Stores a film with its history, in case its earlier file is wanted back. */
export function keepReplaced(db: Db, filmId: string, file: string, project: Project): void {
  const edits = db
    .prepare<[string], unknown>(
      "SELECT sequence, command, inverse, undone, sentence, made_at AS madeAt FROM edits WHERE film_id = ?",
    )
    .all(filmId);
  const [history, states] = [JSON.stringify(edits), JSON.stringify(listCheckpoints(db, filmId))];
  db.prepare(
    `INSERT INTO replaced_sources (film_id, replaced_at, file, project, edits, checkpoints)
     VALUES (?, ?, ?, ?, ?, ?)`,
  ).run(filmId, Date.now(), file, JSON.stringify(project), history, states);
}

/** The film before its last replacement; null if there was none. */
export function lastReplaced(db: Db, filmId: string): ReplacedSource | null {
  const row = db
    .prepare<[string], RawReplaced>(
      "SELECT * FROM replaced_sources WHERE film_id = ? ORDER BY replaced_at DESC LIMIT 1",
    )
    .get(filmId);
  if (!row) return null;
  return {
    replacedAt: row.replaced_at,
    file: row.file,
    project: Project.parse(JSON.parse(row.project)),
    edits: StoredEdits.parse(JSON.parse(row.edits)),
    checkpoints: StoredStates.parse(JSON.parse(row.checkpoints)),
  };
}

/** All earlier files of a film. */
export const filesReplaced = (db: Db, filmId: string): string[] =>
  db
    .prepare<[string], RawReplaced>("SELECT * FROM replaced_sources WHERE film_id = ?")
    .all(filmId)
    .flatMap(({ file, project }) => [file, ...Project.parse(JSON.parse(project)).clips.map((clip) => clip.file)]);

/** Whether a film has an earlier file. */
export const hasReplaced = (db: Db, filmId: string): boolean =>
  db.prepare("SELECT 1 FROM replaced_sources WHERE film_id = ?").get(filmId) !== undefined;

export const forgetReplaced = (db: Db, filmId: string, replacedAt: number): void =>
  void db.prepare("DELETE FROM replaced_sources WHERE film_id = ? AND replaced_at = ?").run(filmId, replacedAt);

/** Files replaced before a moment, with their films. */
export const replacedBefore = (db: Db, moment: number): { filmId: string; replacedAt: number; file: string }[] =>
  db
    .prepare<[number], { filmId: string; replacedAt: number; file: string }>(
      "SELECT film_id AS filmId, replaced_at AS replacedAt, file FROM replaced_sources WHERE replaced_at < ?",
    )
    .all(moment);

/** Restores a stored history, with its checkpoints. */
export function restoreHistory(
  db: Db,
  filmId: string,
  { edits, checkpoints }: Pick<ReplacedSource, "edits" | "checkpoints">,
): void {
  const insert = db.prepare(
    `INSERT INTO edits (film_id, sequence, command, inverse, undone, sentence, made_at)
     VALUES (@filmId, @sequence, @command, @inverse, @undone, @sentence, @madeAt)`,
  );
  for (const edit of edits) insert.run({ filmId, ...edit });
  for (const state of checkpoints) addCheckpoint(db, filmId, state);
}
