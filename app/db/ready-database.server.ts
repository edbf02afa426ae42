import { existsSync } from "node:fs";
import { StartError } from "~/disk/start-error";
import { makeBackup, damageOf } from "./backups.server";
import { connect, type Db, openDatabase, schemaOf } from "./database.server";

/**
 * Opens the database when Glad Pan starts: checks it, and backs it up before its schema is changed.
 *
 * @param backups the folder of the backups
 * @throws StartError if it is damaged, or written by a newer Glad Pan; it is left as it is then
 */
export async function readyDatabase(file: string, backups: string): Promise<Db> {
  if (!existsSync(file)) return openDatabase(file);
  const damage = damageOf(file);
  if (damage) {
    throw new StartError(`the database is damaged (${damage}). Restore the newest backup: ./glad-pan restore`);
  }
  const db = connect(file);
  const { done, all } = schemaOf(db);
  if (done > all) {
    db.close();
    throw new StartError(
      "the database was written by a newer Glad Pan. Start that one, or set GLAD_PAN_DATA to another folder.",
    );
  }
  if (done < all && done > 0) await makeBackup(db, backups, "migration");
  db.close();
  return openDatabase(file);
}
