import { type BrokenPreset, Preset } from "~/core/edits/preset";
import { Refusal } from "~/core/basics/refusal";
import type { Db } from "./database.server";
import { readableOrNull } from "./readable";
import { libraryErrors } from "~/texts/library-errors";

interface RawPreset {
  id: string;
  name: string;
  versions: string;
}

const toPreset = ({ id, name, versions }: RawPreset): Preset =>
  Preset.parse({ id, name, versions: JSON.parse(versions) as unknown });

/** All presets, by name, and those that cannot be read. */
export function readPresets(db: Db): { presets: Preset[]; broken: BrokenPreset[] } {
  const rows = db.prepare<[], RawPreset>("SELECT * FROM presets ORDER BY name COLLATE NOCASE").all();
  const read = rows.map((row) => readableOrNull(() => toPreset(row)) ?? { id: row.id, name: row.name });
  return {
    presets: read.filter((preset) => "versions" in preset),
    broken: read.filter((preset) => !("versions" in preset)),
  };
}

export const listPresets = (db: Db): Preset[] => readPresets(db).presets;

/** The preset with this id; null if there is none that can be read. */
export function findPreset(db: Db, id: string): Preset | null {
  const row = db.prepare<[string], RawPreset>("SELECT * FROM presets WHERE id = ?").get(id);
  return row ? readableOrNull(() => toPreset(row)) : null;
}

const named = (db: Db, name: string): RawPreset | undefined =>
  db.prepare<[string], RawPreset>("SELECT * FROM presets WHERE name = ? COLLATE NOCASE").get(name.trim());

/** The preset with this name, regardless of case; null if there is none that can be read. */
export function findPresetByName(db: Db, name: string): Preset | null {
  const row = named(db, name);
  return row ? readableOrNull(() => toPreset(row)) : null;
}

/**
 * Stores a preset, replacing the one with its id.
 * @throws Refusal if another one has its name
 */
export function savePreset(db: Db, { id, name, versions }: Preset): void {
  const other = named(db, name);
  if (other && other.id !== id) throw new Refusal(libraryErrors.stored.presetExists(other.name));
  db.prepare(
    `INSERT INTO presets (id, name, versions) VALUES (@id, @name, @versions)
     ON CONFLICT (id) DO UPDATE SET name = @name, versions = @versions`,
  ).run({ id, name, versions: JSON.stringify(versions) });
}

export const deletePreset = (db: Db, id: string): void => void db.prepare("DELETE FROM presets WHERE id = ?").run(id);
