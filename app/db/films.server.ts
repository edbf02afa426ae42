import { z } from "zod";
import { FilmInfo } from "~/core/film/film-info";
import { AttentionSettings, USUAL_ATTENTION } from "~/core/subjects/attention/attention-settings";
import { frameToSeconds } from "~/core/time/rate";
import type { Db } from "./database.server";
import { readable, UnreadableFilm } from "./readable";

/** Facts of a film as stored by older versions: whether its frames were uneven, and the time of the first. */
const OlderInfo = z.looseObject({
  grid: z.undefined(),
  rate: z.object({ num: z.number(), den: z.number() }),
  frames: z.number(),
  variableRate: z.boolean(),
  videoStart: z.number(),
  audio: z.object({ codec: z.string() }).nullable(),
});

/** The grid with which an older version worked; edits refer to it. */
function withGrid(stored: unknown): unknown {
  const older = OlderInfo.safeParse(stored);
  if (!older.success) return stored;
  const { variableRate, videoStart, rate, frames, audio, ...rest } = older.data;
  const grid = {
    origin: videoStart,
    fileStart: 0,
    lastPicture: videoStart + frameToSeconds(frames - 1, rate),
    even: !variableRate,
    held: 0,
    longHolds: [],
    seekMargin: variableRate ? Number.MAX_SAFE_INTEGER : 0.5,
  };
  return { ...rest, rate, frames, grid, interlaced: false, audio: audio && { ...audio, index: 0, start: 0 } };
}

/** Facts about a film's file, as stored. */
export const StoredInfo = z.preprocess(withGrid, FilmInfo);

export interface FilmRow {
  id: string;
  name: string;
  /** Path of the original, relative to the data folder where it lies in it. */
  file: string;
  info: FilmInfo;
  /** Counts the changes of the film's shots, versions and keys. */
  revision: number;
  /** Counts the findings of analysis and marks. */
  findings: number;
  /** Sensitivity to transitions, 0 to 100. */
  sensitivity: number;
  /** How attention switches in its shots. */
  attention: AttentionSettings;
  /** Whether it is put away, with finished films. */
  putAway: boolean;
  /** Time of deletion, in milliseconds since 1970; null while it is not deleted. */
  deletedAt: number | null;
  /** Time of adding, likewise. */
  addedAt: number;
  /** Fingerprint of its file, by which it is recognised in any place; null until it is known. */
  fingerprint: string | null;
}

interface RawFilm {
  id: string;
  name: string;
  file: string;
  info: string;
  revision: number;
  findings: number;
  sensitivity: number;
  attention: string | null;
  put_away: number;
  deleted_at: number | null;
  created_at: number;
  fingerprint: string | null;
}

const toFilm = (row: RawFilm): FilmRow => ({
  id: row.id,
  name: row.name,
  file: row.file,
  info: readable(row.name, () => StoredInfo.parse(JSON.parse(row.info))),
  revision: row.revision,
  findings: row.findings,
  sensitivity: row.sensitivity,
  attention: readable(row.name, () =>
    row.attention ? AttentionSettings.parse(JSON.parse(row.attention)) : USUAL_ATTENTION,
  ),
  putAway: row.put_away === 1,
  deletedAt: row.deleted_at,
  addedAt: row.created_at,
  fingerprint: row.fingerprint,
});

/** What is needed to store a film. */
export type NewFilm = Pick<FilmRow, "id" | "name" | "file" | "info"> & Partial<Pick<FilmRow, "fingerprint">>;

export function insertFilm(db: Db, { id, name, file, info, fingerprint = null }: NewFilm): void {
  db.prepare("INSERT INTO films (id, name, file, info, fingerprint, created_at) VALUES (?, ?, ?, ?, ?, ?)").run(
    id,
    name,
    file,
    JSON.stringify(info),
    fingerprint,
    Date.now(),
  );
}

/** A film whose stored data cannot be read. */
export interface BrokenFilm {
  id: string;
  name: string;
  problem: string;
}

/** All films of the library, newest first, deleted or not, and those that cannot be read, which do not hide the others. */
export function readFilms(db: Db): { films: FilmRow[]; broken: BrokenFilm[] } {
  const films: FilmRow[] = [];
  const broken: BrokenFilm[] = [];
  for (const row of db.prepare<[], RawFilm>("SELECT * FROM films ORDER BY created_at DESC").all()) {
    try {
      films.push(toFilm(row));
    } catch (error) {
      if (!(error instanceof UnreadableFilm)) throw error;
      broken.push({ id: row.id, name: row.name, problem: error.message });
    }
  }
  return { films, broken };
}

export const listFilms = (db: Db): FilmRow[] => readFilms(db).films;

/** Whether the library has a film, readable or not. */
export const hasFilm = (db: Db, id: string): boolean =>
  db.prepare("SELECT 1 FROM films WHERE id = ?").get(id) !== undefined;

/** @throws UnreadableFilm if its stored data cannot be read */
export function findFilm(db: Db, id: string): FilmRow | null {
  const row = db.prepare<[string], RawFilm>("SELECT * FROM films WHERE id = ?").get(id);
  return row ? toFilm(row) : null;
}

export const deleteFilm = (db: Db, id: string): void => void db.prepare("DELETE FROM films WHERE id = ?").run(id);

export const raiseRevision = (db: Db, id: string): void =>
  void db.prepare("UPDATE films SET revision = revision + 1 WHERE id = ?").run(id);

/** Counts new findings of a film. */
export const raiseFindings = (db: Db, id: string): void =>
  void db.prepare("UPDATE films SET findings = findings + 1 WHERE id = ?").run(id);

export const renameFilm = (db: Db, id: string, name: string): void =>
  void db.prepare("UPDATE films SET name = ? WHERE id = ?").run(name, id);

export const setPutAway = (db: Db, id: string, away: boolean): void =>
  void db.prepare("UPDATE films SET put_away = ? WHERE id = ?").run(away ? 1 : 0, id);

export const setDeletedAt = (db: Db, id: string, at: number | null): void =>
  void db.prepare("UPDATE films SET deleted_at = ? WHERE id = ?").run(at, id);

/** Ids of the films deleted before a moment. */
export const deletedBefore = (db: Db, moment: number): string[] =>
  db
    .prepare<[number], { id: string }>("SELECT id FROM films WHERE deleted_at < ?")
    .all(moment)
    .map(({ id }) => id);

export const setFile = (db: Db, id: string, file: string): void =>
  void db.prepare("UPDATE films SET file = ? WHERE id = ?").run(file, id);

export const setFingerprint = (db: Db, id: string, fingerprint: string): void =>
  void db.prepare("UPDATE films SET fingerprint = ? WHERE id = ?").run(fingerprint, id);

export const setInfo = (db: Db, id: string, info: FilmInfo): void =>
  void db.prepare("UPDATE films SET info = ? WHERE id = ?").run(JSON.stringify(info), id);

/** Stores the frame that somebody waits for. */
export const setWanted = (db: Db, id: string, frame: number): void =>
  void db.prepare("UPDATE films SET wanted_frame = ? WHERE id = ?").run(frame, id);

/** The frame that somebody waits for; null if nobody does. */
export const findWanted = (db: Db, id: string): number | null =>
  db.prepare<[string], { frame: number | null }>("SELECT wanted_frame AS frame FROM films WHERE id = ?").get(id)
    ?.frame ?? null;

export const setAttention = (db: Db, id: string, attention: AttentionSettings): void =>
  void db.prepare("UPDATE films SET attention = ? WHERE id = ?").run(JSON.stringify(attention), id);

export const setSensitivity = (db: Db, id: string, sensitivity: number): void =>
  void db.prepare("UPDATE films SET sensitivity = ? WHERE id = ?").run(sensitivity, id);
