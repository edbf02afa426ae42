import { existsSync } from "node:fs";
import type { Preset } from "~/core/edits/preset";
import { connect, schemaOf } from "~/db/database.server";
import { findPresetByName, listPresets } from "~/db/presets.server";
import { StartError } from "~/disk/start-error";
import { databaseFile, dataFolderShown } from "~/db/workplace.server";
import { libraryErrors } from "~/texts/library-errors";

const t = libraryErrors.start;

/**
 * A preset of the library, which may be in use meanwhile.
 * @throws StartError if there is none of this name
 */
export function libraryPreset(name: string): Preset {
  const none = (why: string) => new StartError(t.noPreset(name, why));
  if (!existsSync(databaseFile())) throw none(t.noLibrary(dataFolderShown()));
  const db = connect(databaseFile());
  try {
    const { done, all } = schemaOf(db);
    if (done !== all) throw none(t.libraryOfAnother);
    const preset = findPresetByName(db, name);
    if (preset) return preset;
    const names = listPresets(db).map((other) => other.name);
    throw none(names.length > 0 ? t.presetsThereAre(names) : t.noPresetYet);
  } finally {
    db.close();
  }
}
