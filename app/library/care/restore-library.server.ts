import { basename, join } from "node:path";
import { type Backup, listBackups, restoreBackup } from "~/db/backups.server";
import { lockFolder } from "~/disk/folder-lock.server";
import { StartError } from "~/disk/start-error";
import { backupsFolder, databaseFile, dataFolder, dataFolderShown } from "~/db/workplace.server";
import { libraryErrors } from "~/texts/library-errors";

const t = libraryErrors.start;

export const libraryBackups = (): Backup[] => listBackups(backupsFolder());

export interface Restored {
  backup: Backup;
  /** Name of the database that was there before, in the data folder; null if there was none. */
  kept: string | null;
}

/**
 * Restores a backup of the library, the newest one unless one is named. Films added since are recovered at the next start;
 * their files are still there.
 * @throws StartError if a server is running, or if there is no such backup or it is damaged
 */
export async function restoreLibrary(name?: string): Promise<Restored> {
  const lock = lockFolder(dataFolder(), dataFolderShown(), "a restore");
  try {
    const backups = libraryBackups();
    const backup = name === undefined ? backups[0] : backups.find((one) => one.name === name);
    if (!backup) {
      throw new StartError(name === undefined ? t.noBackups(dataFolderShown()) : t.noSuchBackup(name));
    }
    const kept = await restoreBackup(databaseFile(), join(backupsFolder(), backup.name)).catch((error: unknown) => {
      const why = error instanceof Error ? error.message : String(error);
      throw new StartError(t.selectAnother(backup.name, why));
    });
    return { backup, kept: kept && basename(kept) };
  } finally {
    lock.release();
  }
}
