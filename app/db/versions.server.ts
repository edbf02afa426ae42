import { FramingChange } from "~/core/path/framing-settings";
import type { HandKey } from "~/core/path/solve-version";
import type { Db } from "./database.server";

export interface VersionRow {
  id: string;
  name: string;
  width: number;
  height: number;
}

export const listVersions = (db: Db, filmId: string): VersionRow[] =>
  db
    .prepare<[string], VersionRow>("SELECT id, name, width, height FROM versions WHERE film_id = ? ORDER BY position")
    .all(filmId);

export function findVersion(db: Db, filmId: string, id: string): VersionRow | null {
  const row = db
    .prepare<[string, string], VersionRow>("SELECT id, name, width, height FROM versions WHERE film_id = ? AND id = ?")
    .get(filmId, id);
  return row ?? null;
}

/** Whether any film has a version with this id. */
export const versionExists = (db: Db, id: string): boolean =>
  db.prepare("SELECT 1 FROM versions WHERE id = ?").get(id) !== undefined;

export function insertVersion(db: Db, filmId: string, version: VersionRow): void {
  db.prepare(
    `INSERT INTO versions (id, film_id, name, width, height, position)
     VALUES (?, ?, ?, ?, ?, (SELECT COALESCE(MAX(position), 0) + 1 FROM versions WHERE film_id = ?))`,
  ).run(version.id, filmId, version.name, version.width, version.height, filmId);
}

export const deleteVersion = (db: Db, id: string): void => void db.prepare("DELETE FROM versions WHERE id = ?").run(id);

/** What has been set for a version's shots, by shot id; a shot that is not in it is framed as usual. */
export const listFramings = (db: Db, versionId: string): Map<string, FramingChange> =>
  new Map(
    db
      .prepare<[string], { shot_id: string; settings: string }>(
        "SELECT shot_id, settings FROM shot_framings WHERE version_id = ?",
      )
      .all(versionId)
      .map((row) => [row.shot_id, FramingChange.parse(JSON.parse(row.settings))]),
  );

/** Sets all that is set for a shot; what is not in it is as usual. */
export const setFraming = (db: Db, versionId: string, shotId: string, settings: FramingChange): void =>
  void db
    .prepare("INSERT OR REPLACE INTO shot_framings VALUES (?, ?, ?)")
    .run(versionId, shotId, JSON.stringify(settings));

export const listHandKeys = (db: Db, versionId: string): HandKey[] =>
  db
    .prepare<[string], HandKey>("SELECT frame, x, y, height, easing FROM hand_keys WHERE version_id = ? ORDER BY frame")
    .all(versionId);

export function setHandKey(db: Db, versionId: string, key: HandKey): void {
  db.prepare("INSERT OR REPLACE INTO hand_keys VALUES (?, ?, ?, ?, ?, ?)").run(
    versionId,
    key.frame,
    key.x,
    key.y,
    key.height,
    key.easing,
  );
}

export const deleteHandKey = (db: Db, versionId: string, frame: number): void =>
  void db.prepare("DELETE FROM hand_keys WHERE version_id = ? AND frame = ?").run(versionId, frame);
