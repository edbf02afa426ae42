import { existsSync, statSync } from "node:fs";
import { StartError } from "~/disk/start-error";
import { damageOf, isEmpty, listBackups, makeBackup } from "./backups.server";
import { connect, type Db, openDatabase, schemaOf } from "./database.server";
import { libraryErrors } from "~/texts/library-errors";

const t = libraryErrors.start;

/**
 * Opens the database when Glad Pan starts: checks it, and backs it up before a migration.
 * @param backups the folder of the backups
 * @param hasFilms whether there are films in the data folder
 * @throws StartError if it is damaged, missing, or written by a newer Glad Pan; everything is left as it is then
 */
export async function readyDatabase(file: string, backups: string, hasFilms: boolean): Promise<Db> {
  const isBackedUp = listBackups(backups).length > 0;
  if (!existsSync(file) || statSync(file).size === 0) {
    // An empty library would look like the loss of everything.
    if (isBackedUp) throw new StartError(t.databaseMissing);
    return openDatabase(file);
  }
  const damage = damageOf(file);
  if (damage) {
    throw new StartError(t.databaseDamaged(damage));
  }
  const db = connect(file);
  const { done, all } = schemaOf(db);
  if (done > all) {
    db.close();
    throw new StartError(t.databaseNewer);
  }
  if (done < all && done > 0) await makeBackup(db, backups, "migration");
  db.close();
  const ready = openDatabase(file);
  if (!(isBackedUp && hasFilms && isEmpty(ready))) return ready;
  ready.close();
  throw new StartError(t.databaseEmpty);
}
