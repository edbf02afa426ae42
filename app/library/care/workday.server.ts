/** Start and end of the server's work. */
import { readyDatabase } from "~/db/ready-database.server";
import type { Db } from "~/db/database.server";
import { isDiskFull } from "~/disk/disk-space.server";
import { type FolderLock, lockFolder } from "~/disk/folder-lock.server";
import { spendReserve } from "~/disk/reserve.server";
import { StartError } from "~/disk/start-error";
import { filmFolders, forgetRemoved, hasFilmFolders, reconcileFilms } from "../films/films.server";
import { stopPieces } from "../proxy/proxy-pieces.server";
import { startQueue, stopQueue, wakeQueue } from "~/queue/queue.server";
import { attempted, clearHalfUploads, endUpkeep, startUpkeep, sweepAsides, tidyUp } from "./upkeep.server";
import {
  backupsFolder,
  databaseFile,
  dataFolder,
  dataFolderShown,
  diskIsFull,
  uploadsFolder,
  useDatabase,
} from "~/db/workplace.server";
import { libraryErrors } from "~/texts/library-errors";

/** Held as long as this process works; it would be released without a reference. */
let lock: FolderLock | null = null;
/** Films' folders left by an ended server, and when this one began to write. */
let left: { ids: readonly string[]; at: number } = { ids: [], at: 0 };

async function openTheDatabase(): Promise<Db> {
  try {
    return await readyDatabase(databaseFile(), backupsFolder(), hasFilmFolders());
  } catch (error) {
    if (!isDiskFull(error, dataFolder())) throw error;
    // The reserved space is enough to start, and to say so on the page.
    await sweepAsides(dataFolder(), Date.now());
    if (spendReserve(dataFolder())) return openTheDatabase();
    throw new StartError(libraryErrors.start.diskIsFull(diskIsFull()));
  }
}

/**
 * Locks the data folder for this process and opens its database. Nothing in the folder is touched before that.
 * @param address of this server
 * @throws StartError if another server has the folder, or it cannot be used
 */
export async function openWorkplace(address: string): Promise<void> {
  lock = lockFolder(dataFolder(), dataFolderShown(), address);
  clearHalfUploads(uploadsFolder());
  useDatabase(await openTheDatabase());
  forgetRemoved();
  left = { ids: filmFolders(), at: Date.now() };
}

/**
 * Starts to work, once the server can be reached. Remains of an ended server are tidied meanwhile.
 * @returns a message for whoever starts it, once that is done; null if there is nothing to report
 */
export async function startWork(): Promise<string | null> {
  startQueue();
  startUpkeep();
  await tidyUp(left.at);
  let found = 0;
  await attempted(async () => {
    found = await reconcileFilms(left.ids);
  });
  if (found === 0) return null;
  wakeQueue();
  const films = found === 1 ? "1 film" : `${found} films`;
  return `Added ${films} from the data folder that the library did not list. Earlier edits of them are not in it.`;
}

/** Returns running jobs to the queue, closes the database, and releases the data folder. */
export async function stopWork(): Promise<void> {
  await Promise.all([stopQueue(), stopPieces()]);
  await endUpkeep();
  useDatabase(null);
  lock?.release();
}
