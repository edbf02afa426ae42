import { join } from "node:path";
import type { Preset } from "~/core/edits/preset";
import { openDatabase } from "~/db/database.server";
import { savePreset } from "~/db/presets.server";

/** Makes a library in a folder, with a preset and no films. */
export function libraryWith(folder: string, style: Preset): void {
  const db = openDatabase(join(folder, "glad-pan.db"));
  savePreset(db, style);
  db.close();
}
