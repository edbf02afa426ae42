import { existsSync, statSync } from "node:fs";
import { StartError } from "~/disk/start-error";
import { damageOf, isEmpty, listBackups, makeBackup } from "./backups.server";
import { connect, type Db, openDatabase, schemaOf } from "./database.server";

/** What is said of a database that has nothing in it while a backup has: a start would look like a loss of everything. */
const noFreshStart = (what: string): StartError =>
  new StartError(
    `the database ${what}, but there are backups of it. Restore the newest: ./glad-pan restore. To start with an empty library instead, move the folder "backups" out of the data folder.`,
  );

/**
 * Opens the database when Glad Pan starts: checks it, and backs it up before its schema is changed.
 *
 * @param backups the folder of the backups
 * @param hasFilms whether there are films in the data folder
 * @throws StartError if it is damaged, gone, or written by a newer Glad Pan; all is left as it is then
 */
export async function readyDatabase(file: string, backups: string, hasFilms: boolean): Promise<Db> {
  const isBackedUp = listBackups(backups).length > 0;
  if (!existsSync(file) || statSync(file).size === 0) {
    if (isBackedUp) throw noFreshStart("is missing");
    return openDatabase(file);
  }
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
  const ready = openDatabase(file);
  if (!(isBackedUp && hasFilms && isEmpty(ready))) return ready;
  ready.close();
  throw noFreshStart("is empty");
}
