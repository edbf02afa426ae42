import { createHash } from "node:crypto";
import { existsSync, mkdirSync, readdirSync, rmSync, statSync } from "node:fs";
import { copyFile } from "node:fs/promises";
import { join } from "node:path";
import Database from "better-sqlite3";
import { isDiskFull } from "~/disk/disk-space.server";
import { copyWhole, writeAside } from "~/disk/write-aside.server";
import type { Db } from "./database.server";
import { libraryErrors } from "~/texts/library-errors";

/** Number of backups kept: the last ones, and the last one of each of some days. */
const KEPT = { last: 7, days: 7 };
const MINUTE_MS = 60 * 1000;
const HOUR_MS = 60 * MINUTE_MS;
/** The first backups follow one another quickly: the interval grows by this with each, up to an hour. */
const LONGER_MS = 10 * MINUTE_MS;

/** "2026-11-26T06-30-00.db", with the reason where it is not the daily one. */
const NAME = /^(\d{4}-\d\d-\d\dT\d\d-\d\d-\d\d)(?:-[a-z]+)?\.db$/;

const stamp = (time: Date): string => time.toISOString().slice(0, 19).replaceAll(":", "-");

export interface Backup {
  name: string;
  bytes: number;
  /** Milliseconds since 1970, UTC. */
  madeAt: number;
}

/** The backups in a folder, newest first. */
export function listBackups(folder: string): Backup[] {
  if (!existsSync(folder)) return [];
  return readdirSync(folder)
    .flatMap((name) => {
      const made = NAME.exec(name)?.[1];
      if (!made) return [];
      const madeAt = Date.parse(`${made.slice(0, 10)}T${made.slice(11).replaceAll("-", ":")}Z`);
      return [{ name, bytes: statSync(join(folder, name)).size, madeAt }];
    })
    .sort((a, b) => b.name.localeCompare(a.name));
}

/** The backups to be kept of those given, newest first. */
function contentsOf(backups: readonly Backup[]): Set<string> {
  const dayOf = ({ name }: Backup) => name.slice(0, "2026-11-26".length);
  const lastOfDay = backups.filter((backup, i) => i === 0 || dayOf(backup) !== dayOf(backups[i - 1]!));
  return new Set([...backups.slice(0, KEPT.last), ...lastOfDay.slice(0, KEPT.days)].map(({ name }) => name));
}

/**
 * Backs up a database while it is in use, by SQLite's own backup, and deletes backups that are too old.
 * @param why one word for the name, such as "migration"; left out for the daily one
 * @returns the backup's name
 */
export async function makeBackup(db: Db, folder: string, why?: string, now = Date.now()): Promise<string> {
  mkdirSync(folder, { recursive: true });
  const name = `${stamp(new Date(now))}${why ? `-${why}` : ""}.db`;
  await writeAside(join(folder, name), async (aside) => {
    await db.backup(aside);
  });
  const backups = listBackups(folder);
  const kept = contentsOf(backups);
  for (const { name: old } of backups) if (!kept.has(old)) rmSync(join(folder, old));
  return name;
}

/** Tables that only the editor could fill again, and those that took long to fill. */
const WORK = [
  "SELECT id, name, file, revision, findings, put_away, deleted_at FROM films ORDER BY id",
  "SELECT * FROM presets ORDER BY id",
  "SELECT film_id, id, name, deleted FROM checkpoints ORDER BY film_id, id",
  "SELECT film_id, replaced_at FROM replaced_sources ORDER BY film_id, replaced_at",
  "SELECT id, state FROM jobs WHERE kind = 'render' ORDER BY id",
];

/** The work in a library as a digest: equal digests stand for equal work. */
function printOf(db: Db): string {
  const hash = createHash("sha256");
  for (const sql of WORK) hash.update(JSON.stringify(db.prepare(sql).all()));
  return hash.digest("hex");
}

/** Whether a library is empty. */
export const isEmpty = (db: Db): boolean =>
  db.prepare("SELECT 1 FROM films UNION ALL SELECT 1 FROM presets LIMIT 1").get() === undefined;

/** Whether a library has work that its newest backup does not have. */
function hasNewWork(db: Db, folder: string, newest: Backup | undefined): boolean {
  if (isEmpty(db)) return false;
  if (!newest) return true;
  let backup: Db | undefined;
  try {
    backup = new Database(join(folder, newest.name), { readonly: true, fileMustExist: true });
    return printOf(backup) !== printOf(db);
  } catch {
    // A backup that cannot be read, or has another schema, does not contain it.
    return true;
  } finally {
    backup?.close();
  }
}

/** Whether a library in use should be backed up: with new work, every hour, more often at the beginning. */
export function backupIsDue(db: Db, folder: string, now = Date.now()): boolean {
  const backups = listBackups(folder);
  const [newest] = backups;
  const isSoon = newest !== undefined && now - newest.madeAt < Math.min(HOUR_MS, backups.length * LONGER_MS);
  return !isSoon && hasNewWork(db, folder, newest);
}

/** Backs up a library that is about to be closed, unless its last backup is up to date. */
export async function backUpLast(db: Db, folder: string): Promise<void> {
  if (hasNewWork(db, folder, listBackups(folder)[0])) await makeBackup(db, folder);
}

/** What SQLite finds wrong with a database file, which requires reading all of it; null if nothing is. */
export function damageOf(file: string): string | null {
  let db: Db | undefined;
  try {
    db = new Database(file, { readonly: true, fileMustExist: true });
    const said = db.pragma("quick_check(1)", { simple: true }) as string;
    return said === "ok" ? null : said;
  } catch (error) {
    // A full disk is no damage.
    if (isDiskFull(error, file)) throw error;
    return error instanceof Error ? error.message : String(error);
  } finally {
    db?.close();
  }
}

/** Copies a database as it is, with its log if it has one, to other names. */
async function keepAs(file: string, kept: string): Promise<void> {
  for (const part of ["", "-wal"]) if (existsSync(file + part)) await copyWhole(file + part, kept + part);
}

/**
 * Replaces a database that nobody has open with a backup. The one that was there is kept beside it.
 * @returns the name of the kept database, or null if there was none
 * @throws Error if the backup itself is damaged; nothing is changed then
 */
export async function restoreBackup(file: string, backup: string): Promise<string | null> {
  const damage = damageOf(backup);
  if (damage) throw new Error(libraryErrors.start.backupDamaged(damage));
  const kept = existsSync(file) ? `${file}.before-restore-${stamp(new Date())}` : null;
  if (kept) await keepAs(file, kept);
  await writeAside(file, async (aside) => {
    await copyFile(backup, aside);
    // The log belongs to the database beside it, and would be applied to the other one.
    for (const part of ["-wal", "-shm"]) rmSync(file + part, { force: true });
  });
  return kept;
}
