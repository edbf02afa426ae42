import { z } from "zod";
import { frameToSeconds } from "~/core/time/rate";
import type { Db } from "./database.server";

const Range = z.object({ start: z.number(), end: z.number() });

/** What an older version has stored of a film: whether its frames were uneven, and when the first of them came. */
const OlderInfo = z.looseObject({
  grid: z.undefined(),
  rate: z.object({ num: z.number(), den: z.number() }),
  frames: z.number(),
  variableRate: z.boolean(),
  videoStart: z.number(),
  audio: z.object({ codec: z.string() }).nullable(),
});

/** The grid that an older version worked with; edits are made on it. */
function withGrid(stored: unknown): unknown {
  const older = OlderInfo.safeParse(stored);
  if (!older.success) return stored;
  const { variableRate, videoStart, rate, frames, audio, ...rest } = older.data;
  const grid = {
    ...{ origin: videoStart, fileStart: 0, lastPicture: videoStart + frameToSeconds(frames - 1, rate) },
    ...{ even: !variableRate, held: 0, longHolds: [], seekMargin: variableRate ? Number.MAX_SAFE_INTEGER : 0.5 },
  };
  return { ...rest, rate, frames, grid, interlaced: false, audio: audio && { ...audio, index: 0, start: 0 } };
}

const Sound = z.object({ codec: z.string(), index: z.number(), start: z.number() });

const Info = z.object({
  picture: z.object({ width: z.number(), height: z.number() }),
  rate: z.object({ num: z.number(), den: z.number() }),
  frames: z.number(),
  cutOff: z.number().default(0),
  timeBreaks: z.boolean().default(false),
  grid: z.object({
    origin: z.number(),
    fileStart: z.number(),
    lastPicture: z.number(),
    even: z.boolean(),
    held: z.number(),
    longHolds: z.array(Range),
    seekMargin: z.number(),
    // Films that were added before this was kept, and the next.
    timeBase: z.number().default(0),
  }),
  nonSquarePixels: z.boolean(),
  interlaced: z.boolean(),
  // This and the next two were not kept at first.
  fields: z.boolean().default(false),
  audio: Sound.nullable(),
  sounds: z
    .array(Sound.extend({ channels: z.number(), language: z.string().nullable(), title: z.string().nullable() }))
    .default([]),
  startTimecode: z.string().nullable().default(null),
  colour: z.object({ transfer: z.string(), matrix: z.string(), range: z.string() }),
  videoCodec: z.string(),
  container: z.string().default("unknown"),
  bytes: z.number(),
});

/** What was found out about a film's file, as it is stored. */
export const StoredInfo = z.preprocess(withGrid, Info);
export type StoredInfo = z.infer<typeof Info>;

export interface FilmRow {
  id: string;
  name: string;
  /** Path of the original: from the data folder on where it lies inside it. */
  file: string;
  info: StoredInfo;
  /** Counts the changes made to the film's shots, versions and keys. */
  revision: number;
  /** How ready to see transitions, 0 to 100. */
  sensitivity: number;
  createdAt: number;
}

interface RawFilm {
  id: string;
  name: string;
  file: string;
  info: string;
  revision: number;
  sensitivity: number;
  created_at: number;
}

const toFilm = (row: RawFilm): FilmRow => ({
  id: row.id,
  name: row.name,
  file: row.file,
  info: StoredInfo.parse(JSON.parse(row.info)),
  revision: row.revision,
  sensitivity: row.sensitivity,
  createdAt: row.created_at,
});

export function insertFilm(db: Db, film: Pick<FilmRow, "id" | "name" | "file" | "info">): void {
  db.prepare("INSERT INTO films (id, name, file, info, created_at) VALUES (?, ?, ?, ?, ?)").run(
    film.id,
    film.name,
    film.file,
    JSON.stringify(film.info),
    Date.now(),
  );
}

export const listFilms = (db: Db): FilmRow[] =>
  db.prepare<[], RawFilm>("SELECT * FROM films ORDER BY created_at DESC").all().map(toFilm);

export function findFilm(db: Db, id: string): FilmRow | null {
  const row = db.prepare<[string], RawFilm>("SELECT * FROM films WHERE id = ?").get(id);
  return row ? toFilm(row) : null;
}

export const deleteFilm = (db: Db, id: string): void => void db.prepare("DELETE FROM films WHERE id = ?").run(id);

export const raiseRevision = (db: Db, id: string): void =>
  void db.prepare("UPDATE films SET revision = revision + 1 WHERE id = ?").run(id);

export const setInfo = (db: Db, id: string, info: StoredInfo): void =>
  void db.prepare("UPDATE films SET info = ? WHERE id = ?").run(JSON.stringify(info), id);

export const setSensitivity = (db: Db, id: string, sensitivity: number): void =>
  void db.prepare("UPDATE films SET sensitivity = ? WHERE id = ?").run(sensitivity, id);
