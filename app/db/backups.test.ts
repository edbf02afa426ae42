import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterEach, beforeEach, expect, test } from "@jest/globals";
import Database from "better-sqlite3";
import { INFO } from "../../tests/support/film-info";
import { backupIsDue, damageOf, listBackups, makeBackup, restoreBackup } from "./backups.server";
import { type Db, openDatabase, schemaOf } from "./database.server";
import { insertFilm, listFilms } from "./films.server";
import { migration0001 } from "./migrations/0001-first";
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

test("a backup is a database of its own, and the last seven are kept", async () => {
  mkdirSync(backups);
  const older = Array.from({ length: 8 }, (_, i) => `2026-01-0${i + 1}T00-00-00.db`);
  for (const name of older) writeFileSync(join(backups, name), "");
  writeFileSync(join(backups, "notes.txt"), "mine");
  expect(backupIsDue(backups, Date.parse("2026-01-08T23:00:00Z"))).toBe(false);
  expect(backupIsDue(backups, Date.parse("2026-01-09T00:00:00Z"))).toBe(true);
  const db = openDatabase(file);
  addFilm(db, "kite");
  const name = await makeBackup(db, backups);
  db.close();
  expect(listBackups(backups).map((backup) => backup.name)).toEqual([name, ...older.slice(2).reverse()]);
  expect(existsSync(join(backups, "notes.txt"))).toBe(true);
  expect(filmsIn(join(backups, name))).toEqual(["kite"]);
  expect(backupIsDue(backups)).toBe(false);
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
  await expect(readyDatabase(file, backups)).rejects.toThrow(/^the database is damaged \(.*\)\. .*glad-pan restore$/s);
  expect(readFileSync(file).equals(bytes)).toBe(true);
  writeFileSync(file, "short");
  await expect(readyDatabase(file, backups)).rejects.toThrow("is damaged");
});

test("at the start an older database is backed up before it is changed; a newer one is left alone", async () => {
  const old = new Database(file);
  old.exec(migration0001);
  old.pragma("user_version = 1");
  old
    .prepare("INSERT INTO films (id, name, file, info, created_at) VALUES ('a', 'a', '/x/films/a/source.mp4', ?, 0)")
    .run(JSON.stringify(INFO));
  old.close();
  const db = await readyDatabase(file, backups);
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
  await expect(readyDatabase(file, backups)).rejects.toThrow("newer Glad Pan");
});
