import { existsSync, mkdirSync, readdirSync, rmSync, statSync } from "node:fs";
import { copyFile } from "node:fs/promises";
import { join } from "node:path";
import Database from "better-sqlite3";
import { isDiskFull } from "~/disk/disk-space.server";
import { copyWhole, writeAside } from "~/disk/write-aside.server";
import type { Db } from "./database.server";

const KEPT = 7;
const DAY_MS = 24 * 60 * 60 * 1000;

/** "2026-11-26T06-30-00.db", and with why it was made where that is not the day. */
const NAME = /^(\d{4}-\d\d-\d\dT\d\d-\d\d-\d\d)(?:-[a-z]+)?\.db$/;

const stamp = (time: Date): string => time.toISOString().slice(0, 19).replaceAll(":", "-");

export interface Backup {
  name: string;
  bytes: number;
  /** Milliseconds since 1970, UTC. */
  madeAt: number;
}

/** The backups in a folder, the newest first. */
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

/**
 * Backs a database up while it is used, by SQLite's own backup, and forgets all but the last seven backups.
 *
 * @param why one word for the name, such as "migration"; left out for the daily one
 * @returns the backup's name
 */
export async function makeBackup(db: Db, folder: string, why?: string): Promise<string> {
  mkdirSync(folder, { recursive: true });
  const name = `${stamp(new Date())}${why ? `-${why}` : ""}.db`;
  await writeAside(join(folder, name), async (aside) => {
    await db.backup(aside);
  });
  for (const { name: old } of listBackups(folder).slice(KEPT)) rmSync(join(folder, old));
  return name;
}

/** Whether the last backup, of whatever kind, is a day old. */
export function backupIsDue(folder: string, now = Date.now()): boolean {
  const [newest] = listBackups(folder);
  return !newest || now - newest.madeAt >= DAY_MS;
}

/** What SQLite finds wrong with a database file, which takes reading all of it; null if nothing is. */
export function damageOf(file: string): string | null {
  let db: Db | undefined;
  try {
    db = new Database(file, { readonly: true, fileMustExist: true });
    const said = db.pragma("quick_check(1)", { simple: true }) as string;
    return said === "ok" ? null : said;
  } catch (error) {
    // A disk that is full is no damage.
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
 * Puts a backup in the place of a database that nobody has open. What was there is kept beside it.
 *
 * @returns the name under which the database that was there is kept, or null if there was none
 * @throws Error if the backup itself is damaged; nothing is changed then
 */
export async function restoreBackup(file: string, backup: string): Promise<string | null> {
  const damage = damageOf(backup);
  if (damage) throw new Error(`this backup is damaged as well (${damage})`);
  const kept = existsSync(file) ? `${file}.before-restore-${stamp(new Date())}` : null;
  if (kept) await keepAs(file, kept);
  await writeAside(file, async (aside) => {
    await copyFile(backup, aside);
    // The log belongs to the database that it stands beside, and would be applied to the other one.
    for (const part of ["-wal", "-shm"]) rmSync(file + part, { force: true });
  });
  return kept;
}
