import { Preset } from "~/core/edits/preset";
import { Refusal } from "~/core/refusal";
import type { Db } from "./database.server";
import { readableOrNull } from "./readable";

interface RawPreset {
  id: string;
  name: string;
  versions: string;
}

const toPreset = ({ id, name, versions }: RawPreset): Preset =>
  Preset.parse({ id, name, versions: JSON.parse(versions) as unknown });

/** All presets that can be read, by their names. */
export const listPresets = (db: Db): Preset[] =>
  db
    .prepare<[], RawPreset>("SELECT * FROM presets ORDER BY name COLLATE NOCASE")
    .all()
    .flatMap((row) => readableOrNull(() => toPreset(row)) ?? []);

export function findPreset(db: Db, id: string): Preset | null {
  const row = db.prepare<[string], RawPreset>("SELECT * FROM presets WHERE id = ?").get(id);
  return row ? toPreset(row) : null;
}

/** The preset that is called so, however it is capitalised. */
export function findPresetByName(db: Db, name: string): Preset | null {
  const row = db.prepare<[string], RawPreset>("SELECT * FROM presets WHERE name = ? COLLATE NOCASE").get(name.trim());
  return row ? toPreset(row) : null;
}

/**
 * Stores a preset in the place of the one with its id, if there is one.
 *
 * @throws Refusal if another one has its name
 */
export function savePreset(db: Db, { id, name, versions }: Preset): void {
  const other = findPresetByName(db, name);
  if (other && other.id !== id) throw new Refusal(`a preset called “${other.name}” already exists`);
  db.prepare(
    `INSERT INTO presets (id, name, versions) VALUES (@id, @name, @versions)
     ON CONFLICT (id) DO UPDATE SET name = @name, versions = @versions`,
  ).run({ id, name, versions: JSON.stringify(versions) });
}

export const deletePreset = (db: Db, id: string): void => void db.prepare("DELETE FROM presets WHERE id = ?").run(id);
