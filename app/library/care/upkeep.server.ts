/** What is seen to at the start, and from time to time while the server runs. */
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
/** Parts of renders that no export has used for so long are rendered again if they are wanted. */
const PARTS_DAYS = 14;
const MINUTE_MS = 60 * 1000;
const HOUR_MS = 60 * MINUTE_MS;
const DAY_MS = 24 * HOUR_MS;

/** When a file or folder was changed last, in any way: a second name for an old file keeps its other times. */
const touchedMs = (path: string): number => statSync(path, { throwIfNoEntry: false })?.ctimeMs ?? Infinity;

/**
 * Removes half-written files, and folders of work under way, that an ended server has left. Needs no database: it may be
 * what makes room for it.
 *
 * @param before milliseconds since 1970; what was touched later is being written by this server
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
 * Removes folders with nothing in them; folders inside are done first.
 *
 * @param before milliseconds since 1970; into what was touched later this server is about to write
 */
export function removeEmptyFolders(folder: string, before: number): void {
  if (!existsSync(folder)) return;
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    if (!entry.isDirectory()) continue;
    const inside = join(folder, entry.name);
    // Asked first: what is removed inside touches it, too.
    const isOld = touchedMs(inside) < before;
    removeEmptyFolders(inside, before);
    if (isOld && readdirSync(inside).length === 0) rmdirSync(inside);
  }
}

/** Removes what is left of uploads that were taken in, or never begun: what is said of one without its bytes, and vice versa. */
export function clearHalfUploads(folder: string): void {
  if (!existsSync(folder)) return;
  const names = new Set(readdirSync(folder));
  for (const name of names) {
    const other = name.endsWith(".json") ? name.slice(0, -".json".length) : `${name}.json`;
    if (!names.has(other)) rmSync(join(folder, name), { recursive: true, force: true });
  }
}

/** Forgets uploads to which nothing was added for a week. */
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

/** Does something; what fails is told in the log. */
export const attempted = (what: () => Promise<void>): Promise<void> =>
  what().catch((error: unknown) =>
    log.error({ error: error instanceof Error ? error.message : error }, "upkeep failed"),
  );

/** Does something now and again and again; what fails is tried again the next time. */
function every(intervalMs: number, what: () => Promise<void>): void {
  const attempt = () => void attempted(what);
  attempt();
  setInterval(attempt, intervalMs).unref();
}

/** Backs the library up before it is closed. */
export const endUpkeep = (): Promise<void> => attempted(async () => backUpLast(db(), backupsFolder()));

/**
 * Removes what an ended server has left half done.
 *
 * @param began when this server began to write, in milliseconds since 1970
 */
export const tidyUp = (began: number): Promise<void> =>
  attempted(async () => {
    await sweepAsides(dataFolder(), began);
    for (const { path } of outFolders()) await sweepAsides(path, began, false);
    removeEmptyFolders(filmsFolder(), began);
  });

/** Sees to the data folder from now on. */
export function startUpkeep(): void {
  every(HOUR_MS, careForData);
  every(MINUTE_MS, backUp);
}
