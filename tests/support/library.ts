import { join } from "node:path";
import type { HouseStyle } from "~/core/edits/house-style";
import { openDatabase } from "~/db/database.server";
import { saveStyle } from "~/db/house-styles.server";

/** Makes a library in a folder, with a house style and no films. */
export function libraryWith(folder: string, style: HouseStyle): void {
  const db = openDatabase(join(folder, "glad-pan.db"));
  saveStyle(db, style);
  db.close();
}
