/** Maintenance at the start, and from time to time while the server runs. */
import { existsSync, readdirSync, rmdirSync, rmSync, statSync } from "node:fs";
import { readdir, rm } from "node:fs/promises";
import { join } from "node:path";
import pino from "pino";
import { backUpLast, backupIsDue, makeBackup } from "~/db/backups.server";
import { keepReserve } from "~/disk/reserve.server";
import { isAside } from "~/disk/write-aside.server";
import { forgetParts } from "~/media/render/parts.server";
import { purgeDeleted } from "../films/keep-films.server";
import { outFolders } from "../folders/out-folders.server";
import { purgeReplaced } from "../replace/replace-source.server";
import { backupsFolder, dataFolder, db, filmsFolder, uploadsFolder } from "~/db/workplace.server";

const log = pino({ name: "upkeep" });

const UPLOAD_DAYS = 7;
/** Days after which unused parts of renders are deleted; they can be rendered again. */
const PARTS_DAYS = 14;
const MINUTE_MS = 60 * 1000;
const HOUR_MS = 60 * MINUTE_MS;
const DAY_MS = 24 * HOUR_MS;

/** Time of the last change of a file or folder, of any kind: a hard link to an old file keeps its other times. */
const touchedMs = (path: string): number => statSync(path, { throwIfNoEntry: false })?.ctimeMs ?? Infinity;

/**
 * Removes half-written files, and temporary folders, of an ended server. Needs no database: it may have to make room for
 * it.
 * @param before milliseconds since 1970; newer files are being written by this server
 */
export async function sweepAsides(folder: string, before: number, recursive = true): Promise<void> {
  if (!existsSync(folder)) return;
  for (const entry of await readdir(folder, { withFileTypes: true, recursive })) {
    if (!isAside(entry.name)) continue;
    const aside = join(entry.parentPath, entry.name);
    if (touchedMs(aside) < before) await rm(aside, { recursive: true, force: true });
  }
}

/**
 * Removes empty folders, from the inside out.
 * @param before milliseconds since 1970; this server is about to write to newer ones
 */
export function removeEmptyFolders(folder: string, before: number): void {
  if (!existsSync(folder)) return;
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    if (!entry.isDirectory()) continue;
    const inside = join(folder, entry.name);
    // Checked first: removing something inside changes the time as well.
    const isOld = touchedMs(inside) < before;
    removeEmptyFolders(inside, before);
    if (isOld && readdirSync(inside).length === 0) rmdirSync(inside);
  }
}

/**
 * Removes remains of uploads that were taken in, or never begun: descriptions without data, and data without descriptions.
 */
export function clearHalfUploads(folder: string): void {
  if (!existsSync(folder)) return;
  const names = new Set(readdirSync(folder));
  for (const name of names) {
    const other = name.endsWith(".json") ? name.slice(0, -".json".length) : `${name}.json`;
    if (!names.has(other)) rmSync(join(folder, name), { recursive: true, force: true });
  }
}

/** Deletes uploads that have not grown for a week. */
export function expireUploads(folder: string, now = Date.now()): void {
  if (!existsSync(folder)) return;
  for (const name of readdirSync(folder).filter((file) => !file.endsWith(".json"))) {
    const file = join(folder, name);
    if (now - statSync(file).mtimeMs <= UPLOAD_DAYS * DAY_MS) continue;
    rmSync(file, { force: true });
    rmSync(`${file}.json`, { force: true });
  }
}

async function careForData(): Promise<void> {
  expireUploads(uploadsFolder());
  await purgeDeleted();
  await purgeReplaced();
  for (const id of existsSync(filmsFolder()) ? readdirSync(filmsFolder()) : []) {
    await forgetParts(join(filmsFolder(), id, "parts"), PARTS_DAYS * DAY_MS);
  }
  keepReserve(dataFolder());
}

async function backUp(): Promise<void> {
  if (backupIsDue(db(), backupsFolder())) await makeBackup(db(), backupsFolder());
}

/** Runs something; errors are logged. */
export const attempted = (what: () => Promise<void>): Promise<void> =>
  what().catch((error: unknown) =>
    log.error({ error: error instanceof Error ? error.message : error }, "upkeep failed"),
  );

/** Runs something now and at intervals; errors do not stop it. */
function every(intervalMs: number, what: () => Promise<void>): void {
  const attempt = () => void attempted(what);
  attempt();
  setInterval(attempt, intervalMs).unref();
}

/** Backs up the library before it is closed. */
export const endUpkeep = (): Promise<void> => attempted(async () => backUpLast(db(), backupsFolder()));

/**
 * Removes what an ended server has left half done.
 * @param began when this server began to write, in milliseconds since 1970
 */
export const tidyUp = (began: number): Promise<void> =>
  attempted(async () => {
    await sweepAsides(dataFolder(), began);
    for (const { path } of outFolders()) await sweepAsides(path, began, false);
    removeEmptyFolders(filmsFolder(), began);
  });

/** Maintains the data folder from now on. */
export function startUpkeep(): void {
  every(HOUR_MS, careForData);
  every(MINUTE_MS, backUp);
}
