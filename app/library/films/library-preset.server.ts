import { existsSync } from "node:fs";
import type { Preset } from "~/core/edits/preset";
import { connect, schemaOf } from "~/db/database.server";
import { findPresetByName, listPresets } from "~/db/presets.server";
import { StartError } from "~/disk/start-error";
import { databaseFile, dataFolderShown } from "~/db/workplace.server";

/**
 * A preset of the library, which may be in use meanwhile.
 *
 * @throws StartError if there is none of this name
 */
export function libraryPreset(name: string): Preset {
  const none = (why: string) => new StartError(`there is no preset called "${name}": ${why}`);
  if (!existsSync(databaseFile())) throw none(`there is no library in ${dataFolderShown()}`);
  const db = connect(databaseFile());
  try {
    const { done, all } = schemaOf(db);
    if (done !== all) throw none("the library is of another version of Glad Pan; start it once with this one");
    const preset = findPresetByName(db, name);
    if (preset) return preset;
    const names = listPresets(db).map((other) => `"${other.name}"`);
    throw none(names.length > 0 ? `there are ${names.join(", ")}` : "the library has no preset yet");
  } finally {
    db.close();
  }
}
