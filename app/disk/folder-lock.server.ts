import { mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import Database from "better-sqlite3";
import { z } from "zod";
import { StartError } from "./start-error";
import { libraryErrors } from "~/texts/library-errors";

const t = libraryErrors.start;

/** The process that uses a folder. */
const Holder = z.object({ pid: z.int(), what: z.string() });
export type Holder = z.infer<typeof Holder>;

export interface FolderLock {
  release(): void;
}

const holderFile = (folder: string) => join(folder, "in-use.json");

function readHolder(folder: string): Holder | null {
  try {
    return Holder.parse(JSON.parse(readFileSync(holderFile(folder), "utf8")));
  } catch {
    return null;
  }
}

/**
 * Locks a folder for this process alone, creating it if need be. The system releases the lock when the process ends,
 * however it ends: it is SQLite's lock on an empty database (Node has none of its own).
 * @param shown name of the folder in messages
 * @param what describes this process to the next one that wants the folder, such as its address
 * @throws StartError if another process has it, or if nothing can be written there
 */
export function lockFolder(folder: string, shown: string, what: string): FolderLock {
  let lock: Database.Database;
  try {
    mkdirSync(folder, { recursive: true });
    lock = new Database(join(folder, "lock.db"), { timeout: 0 });
  } catch (error) {
    const why = (error as NodeJS.ErrnoException).code ?? t.unknownReason;
    throw new StartError(t.cannotWrite(shown, why));
  }
  try {
    // A database without a page is given one at its first write, which may come when there is no space for it.
    if (lock.pragma("page_count", { simple: true }) === 0) lock.pragma("user_version = 1");
    lock.exec("BEGIN EXCLUSIVE");
  } catch (error) {
    lock.close();
    const code = (error as { code?: string }).code ?? "";
    if (!code.startsWith("SQLITE_BUSY")) {
      throw new StartError(t.cannotLock(shown, code));
    }
    const holder = readHolder(folder);
    const who = holder ? t.process(holder.what, holder.pid) : t.anotherOne;
    throw new StartError(t.inUse(shown, who));
  }
  try {
    writeFileSync(holderFile(folder), JSON.stringify({ pid: process.pid, what } satisfies Holder));
  } catch {
    // On a full disk the next one is told less; that is no reason not to start.
  }
  return { release: () => lock.close() };
}
