import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterEach, beforeEach, describe, expect, test } from "@jest/globals";
import Database from "better-sqlite3";
import { INFO } from "../../tests/support/film-info";
import { newVersion } from "~/core/version/film-state";
import { presetOf } from "~/core/edits/preset";
import { backUpLast, backupIsDue, damageOf, listBackups, makeBackup, restoreBackup } from "./backups.server";
import { type Db, openDatabase, schemaOf } from "./database.server";
import { insertFilm, listFilms, raiseRevision, setDeletedAt } from "./films.server";
import { savePreset } from "./presets.server";
import { insertJob } from "./jobs.server";
import { migration0001 } from "./migrations/0001-first";
import { addCheckpoint } from "./checkpoints.server";
import { readyDatabase } from "./ready-database.server";

let folder: string;
let file: string;
let backups: string;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), "glad-pan-backups-"));
  file = join(folder, "glad-pan.db");
  backups = join(folder, "backups");
});
afterEach(() => rmSync(folder, { recursive: true }));

const addFilm = (db: Db, id: string) =>
  insertFilm(db, { id, name: `${id}.mp4`, file: `films/${id}/source.mp4`, info: INFO });
const filmsIn = (path: string) => {
  const db = openDatabase(path);
  const ids = listFilms(db).map(({ id }) => id);
  db.close();
  return ids.sort();
};

test("a backup is a database of its own; the last seven are kept, and the last of each of seven days", async () => {
  mkdirSync(backups);
  const days = Array.from({ length: 9 }, (_, i) => `2026-01-0${i + 1}`);
  const older = days.flatMap((day) => [`${day}T08-00-00.db`, `${day}T20-00-00-migration.db`]);
  for (const name of older) writeFileSync(join(backups, name), "");
  writeFileSync(join(backups, "notes.txt"), "mine");
  const db = openDatabase(file);
  addFilm(db, "kite");
  const name = await makeBackup(db, backups);
  db.close();
  const newest = older.toReversed();
  const kept = listBackups(backups).map((backup) => backup.name);
  // Six of the older ones are among the last seven: those of three days; of three more days there is the evening's.
  expect(kept).toEqual([name, ...newest.slice(0, 6), newest[6], newest[8], newest[10]]);
  expect(existsSync(join(backups, "notes.txt"))).toBe(true);
  expect(filmsIn(join(backups, name))).toEqual(["kite"]);
});

describe("a backup is due", () => {
  const MINUTE = 60_000;
  const at = (minutes: number) => Date.parse("2026-01-05T10:00:00Z") + minutes * MINUTE;
  /** Backs up at so many minutes after ten, if that is due. */
  const passing = async (db: Db, minutes: number) => {
    const isDue = backupIsDue(db, backups, at(minutes));
    if (isDue) await makeBackup(db, backups, undefined, at(minutes));
    return isDue;
  };

  test("as soon as there is a film, soon after the first changes, and later every hour; never without any change", async () => {
    const db = openDatabase(file);
    expect(await passing(db, 0)).toBe(false);
    addFilm(db, "kite");
    expect(await passing(db, 1)).toBe(true);
    expect(await passing(db, 60)).toBe(false);
    raiseRevision(db, "kite");
    expect(await passing(db, 60.5)).toBe(true);
    raiseRevision(db, "kite");
    expect([await passing(db, 80.4), await passing(db, 80.6)]).toEqual([false, true]);
    for (let i = 0; i < 6; i++) {
      raiseRevision(db, "kite");
      expect(await passing(db, 200 + 61 * i)).toBe(true);
    }
    raiseRevision(db, "kite");
    expect([await passing(db, 200 + 61 * 5 + 59), await passing(db, 200 + 61 * 6)]).toEqual([false, true]);
    expect(await passing(db, 10_000)).toBe(false);
    db.close();
  });

  test("for presets, checkpoints, deletions and exports as well", async () => {
    const db = openDatabase(file);
    const style = {
      id: "s",
      name: "Ferry",
      versions: presetOf([newVersion({ id: "v", name: "Tall", width: 90, height: 160 })]),
    };
    const changes = [
      () => savePreset(db, style),
      () => savePreset(db, { ...style, name: "Almanac" }),
      () => addFilm(db, "kite"),
      () => addCheckpoint(db, "kite", { id: "n", name: "First", madeAt: 1, difference: {} }),
      () => setDeletedAt(db, "kite", 5),
      () => insertJob(db, { id: "j", filmId: "kite", kind: "render", asked: { versionId: "v", fileName: "kite.mp4" } }),
    ];
    for (const [i, change] of changes.entries()) {
      change();
      expect([i, await passing(db, 100 * i), await passing(db, 100 * i + 90)]).toEqual([i, true, false]);
    }
    db.close();
  });

  test("when a library is closed whose last backup lacks something", async () => {
    const db = openDatabase(file);
    await backUpLast(db, backups);
    expect(listBackups(backups)).toEqual([]);
    addFilm(db, "kite");
    await passing(db, 0);
    await backUpLast(db, backups);
    expect(listBackups(backups)).toHaveLength(1);
    addFilm(db, "bench");
    await backUpLast(db, backups);
    db.close();
    expect(filmsIn(join(backups, listBackups(backups)[0]!.name))).toEqual(["bench", "kite"]);
  });
});

test("a backup is put back, and what was there is kept with what its log still held", async () => {
  const db = openDatabase(file);
  addFilm(db, "kite");
  const name = await makeBackup(db, backups);
  addFilm(db, "bench");
  // As after a loss of power: the log is still beside the database.
  const left = { db: readFileSync(file), wal: readFileSync(`${file}-wal`) };
  db.close();
  writeFileSync(file, left.db);
  writeFileSync(`${file}-wal`, left.wal);
  const kept = await restoreBackup(file, join(backups, name));
  expect(filmsIn(file)).toEqual(["kite"]);
  expect(filmsIn(kept!)).toEqual(["bench", "kite"]);
});

test("a damaged backup is not put back", async () => {
  const db = openDatabase(file);
  addFilm(db, "kite");
  const name = await makeBackup(db, backups);
  db.close();
  writeFileSync(join(backups, name), "not a database at all, but long enough to be looked at as one".repeat(20));
  await expect(restoreBackup(file, join(backups, name))).rejects.toThrow("damaged as well");
  expect(filmsIn(file)).toEqual(["kite"]);
});

test("at the start a damaged database is told, and left as it is", async () => {
  const db = openDatabase(file);
  for (let i = 0; i < 200; i++) addFilm(db, `film${i}`);
  db.close();
  const bytes = readFileSync(file);
  expect(damageOf(file)).toBeNull();
  bytes.fill(0x5a, 8192, 40_000);
  writeFileSync(file, bytes);
  await expect(readyDatabase(file, backups, true)).rejects.toThrow(
    /^the database is damaged \(.*\)\. .*glad-pan restore$/s,
  );
  expect(readFileSync(file).equals(bytes)).toBe(true);
  writeFileSync(file, "short");
  await expect(readyDatabase(file, backups, true)).rejects.toThrow("is damaged");
});

test("at the start an older database is backed up before it is changed; a newer one is left alone", async () => {
  const old = new Database(file);
  old.exec(migration0001);
  old.pragma("user_version = 1");
  old
    .prepare("INSERT INTO films (id, name, file, info, created_at) VALUES ('a', 'a', '/x/films/a/source.mp4', ?, 0)")
    .run(JSON.stringify(INFO));
  old.close();
  const db = await readyDatabase(file, backups, true);
  expect(schemaOf(db).done).toBe(schemaOf(db).all);
  // The data folder may have been anywhere.
  expect(listFilms(db)[0]!.file).toBe("films/a/source.mp4");
  db.pragma("user_version = 99");
  db.close();
  const [backup] = listBackups(backups);
  expect(backup!.name).toContain("-migration.db");
  const before = new Database(join(backups, backup!.name), { readonly: true });
  expect(before.pragma("user_version", { simple: true })).toBe(1);
  before.close();
  await expect(readyDatabase(file, backups, true)).rejects.toThrow("newer Glad Pan");
});

describe("a start without a database", () => {
  test("is a first one only where there are no backups of it", async () => {
    (await readyDatabase(file, backups, true)).close();
    const db = openDatabase(file);
    addFilm(db, "kite");
    await makeBackup(db, backups);
    db.close();
    rmSync(file);
    await expect(readyDatabase(file, backups, false)).rejects.toThrow(/^the database is missing.*glad-pan restore\./s);
    expect(existsSync(file)).toBe(false);
    writeFileSync(file, "");
    await expect(readyDatabase(file, backups, true)).rejects.toThrow("the database is missing");
  });

  test("is none where another one with nothing in it stands beside films and backups", async () => {
    const db = openDatabase(file);
    addFilm(db, "kite");
    await makeBackup(db, backups);
    db.close();
    rmSync(file);
    openDatabase(file).close();
    await expect(readyDatabase(file, backups, true)).rejects.toThrow("the database is empty, but there are backups");
    // All films were deleted.
    (await readyDatabase(file, backups, false)).close();
  });
});
