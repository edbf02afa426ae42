import { HouseStyle } from "~/core/edits/house-style";
import { Refusal } from "~/core/refusal";
import type { Db } from "./database.server";
import { readableOrNull } from "./readable";

interface RawStyle {
  id: string;
  name: string;
  versions: string;
}

const toStyle = ({ id, name, versions }: RawStyle): HouseStyle =>
  HouseStyle.parse({ id, name, versions: JSON.parse(versions) as unknown });

/** All house styles that can be read, by their names. */
export const listStyles = (db: Db): HouseStyle[] =>
  db
    .prepare<[], RawStyle>("SELECT * FROM house_styles ORDER BY name COLLATE NOCASE")
    .all()
    .flatMap((row) => readableOrNull(() => toStyle(row)) ?? []);

export function findStyle(db: Db, id: string): HouseStyle | null {
  const row = db.prepare<[string], RawStyle>("SELECT * FROM house_styles WHERE id = ?").get(id);
  return row ? toStyle(row) : null;
}

/** The house style that is called so, however it is capitalised. */
export function findStyleByName(db: Db, name: string): HouseStyle | null {
  const row = db
    .prepare<[string], RawStyle>("SELECT * FROM house_styles WHERE name = ? COLLATE NOCASE")
    .get(name.trim());
  return row ? toStyle(row) : null;
}

/**
 * Stores a house style in the place of the one with its id, if there is one.
 *
 * @throws Refusal if another one has its name
 */
export function saveStyle(db: Db, { id, name, versions }: HouseStyle): void {
  const other = findStyleByName(db, name);
  if (other && other.id !== id) throw new Refusal(`a house style called “${other.name}” already exists`);
  db.prepare(
    `INSERT INTO house_styles (id, name, versions) VALUES (@id, @name, @versions)
     ON CONFLICT (id) DO UPDATE SET name = @name, versions = @versions`,
  ).run({ id, name, versions: JSON.stringify(versions) });
}

export const deleteStyle = (db: Db, id: string): void =>
  void db.prepare("DELETE FROM house_styles WHERE id = ?").run(id);
