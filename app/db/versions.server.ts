import { Version } from "~/core/version/film-state";
import { ShotInVersion } from "~/core/version/settle";
import { HandKey } from "~/core/path/hand-key";
import { Refusal } from "~/core/basics/refusal";
import type { Db } from "./database.server";
import { libraryErrors } from "~/texts/library-errors";

interface RawVersion {
  id: string;
  name: string;
  width: number;
  height: number;
  in_frame: number | null;
  out_frame: number | null;
  left_out: string;
  limit_seconds: number | null;
  usual: string;
  layers: string;
  safe_area: string | null;
  captions: string | null;
  check_limits: string | null;
  reviewed_flags: string;
  output: string | null;
}

const toVersion = (row: RawVersion): Version =>
  Version.parse({
    id: row.id,
    name: row.name,
    width: row.width,
    height: row.height,
    trim: { in: row.in_frame, out: row.out_frame, leftOut: JSON.parse(row.left_out) as unknown },
    limitSeconds: row.limit_seconds,
    usual: JSON.parse(row.usual) as unknown,
    layers: JSON.parse(row.layers) as unknown,
    safeArea: row.safe_area === null ? null : (JSON.parse(row.safe_area) as unknown),
    captions: row.captions === null ? undefined : (JSON.parse(row.captions) as unknown),
    checkLimits: row.check_limits === null ? undefined : (JSON.parse(row.check_limits) as unknown),
    reviewedFlags: JSON.parse(row.reviewed_flags) as unknown,
    output: row.output === null ? undefined : (JSON.parse(row.output) as unknown),
  });

export const listVersions = (db: Db, filmId: string): Version[] =>
  db
    .prepare<[string], RawVersion>("SELECT * FROM versions WHERE film_id = ? ORDER BY position")
    .all(filmId)
    .map(toVersion);

export const countVersions = (db: Db, filmId: string): number =>
  db.prepare<[string], { count: number }>("SELECT COUNT(*) AS count FROM versions WHERE film_id = ?").get(filmId)!
    .count;

export function findVersion(db: Db, filmId: string, id: string): Version | null {
  return listVersions(db, filmId).find((version) => version.id === id) ?? null;
}

/** Stores a version, replacing the film's one with its id, or as its last one. */
export function saveVersion(db: Db, filmId: string, version: Version): void {
  const { changes } = db
    .prepare(
      `INSERT INTO versions (id, film_id, name, width, height, in_frame, out_frame, left_out, limit_seconds, usual, layers,
         safe_area, captions, check_limits, reviewed_flags, output, position)
       VALUES (@id, @filmId, @name, @width, @height, @in, @out, @leftOut, @limitSeconds, @usual, @layers, @safeArea,
         @captions, @checkLimits, @reviewedFlags, @output, (SELECT COALESCE(MAX(position), 0) + 1 FROM versions WHERE film_id = @filmId))
       ON CONFLICT (id) DO UPDATE SET name = @name, width = @width, height = @height, in_frame = @in, out_frame = @out,
         left_out = @leftOut, limit_seconds = @limitSeconds, usual = @usual, layers = @layers, safe_area = @safeArea,
         captions = @captions, check_limits = @checkLimits, reviewed_flags = @reviewedFlags,
         output = @output
       WHERE film_id = @filmId`,
    )
    .run({
      id: version.id,
      filmId,
      name: version.name,
      width: version.width,
      height: version.height,
      in: version.trim.in,
      out: version.trim.out,
      leftOut: JSON.stringify(version.trim.leftOut),
      limitSeconds: version.limitSeconds,
      usual: JSON.stringify(version.usual),
      layers: JSON.stringify(version.layers),
      safeArea: version.safeArea && JSON.stringify(version.safeArea),
      captions: JSON.stringify(version.captions),
      checkLimits: JSON.stringify(version.checkLimits),
      reviewedFlags: JSON.stringify(version.reviewedFlags),
      output: JSON.stringify(version.output),
    });
  if (changes === 0) throw new Refusal(libraryErrors.stored.versionExists);
}

/** Keeps only these versions of a film, in this order; others are deleted with all their settings. */
export function keepVersions(db: Db, filmId: string, ids: readonly string[]): void {
  for (const { id } of listVersions(db, filmId)) {
    if (!ids.includes(id)) db.prepare("DELETE FROM versions WHERE id = ?").run(id);
  }
  const place = db.prepare("UPDATE versions SET position = ? WHERE id = ? AND film_id = ?");
  ids.forEach((id, i) => place.run(i + 1, id, filmId));
}

/** A version's settings of shots, by shot id; a missing shot has the usual settings. */
export const listShotsInVersion = (db: Db, versionId: string): Map<string, ShotInVersion> =>
  new Map(
    db
      .prepare<[string], { shot_id: string; settings: string }>(
        "SELECT shot_id, settings FROM shot_framings WHERE version_id = ?",
      )
      .all(versionId)
      .map((row) => [row.shot_id, ShotInVersion.parse(JSON.parse(row.settings))]),
  );

/** Stores a version's settings of a shot; null for none. */
export function setShotInVersion(db: Db, versionId: string, shotId: string, says: ShotInVersion | null): void {
  if (says) {
    db.prepare("INSERT OR REPLACE INTO shot_framings (version_id, shot_id, settings) VALUES (?, ?, ?)").run(
      versionId,
      shotId,
      JSON.stringify(says),
    );
  } else db.prepare("DELETE FROM shot_framings WHERE version_id = ? AND shot_id = ?").run(versionId, shotId);
}

/** Copies versions' settings of a shot to another. */
export const copyShotInVersions = (db: Db, fromShotId: string, toShotId: string): void =>
  void db
    .prepare(
      `INSERT OR REPLACE INTO shot_framings (version_id, shot_id, settings)
       SELECT version_id, ?, settings FROM shot_framings WHERE shot_id = ?`,
    )
    .run(toShotId, fromShotId);

export const listHandKeys = (db: Db, versionId: string): HandKey[] =>
  db
    .prepare<[string], HandKey>(
      "SELECT pane, frame, x, y, height, easing FROM hand_keys WHERE version_id = ? ORDER BY frame, pane",
    )
    .all(versionId)
    .map((row) => HandKey.parse(row));

export function setHandKey(db: Db, versionId: string, key: HandKey): void {
  db.prepare(
    `INSERT OR REPLACE INTO hand_keys (version_id, pane, frame, x, y, height, easing)
     VALUES (@versionId, @pane, @frame, @x, @y, @height, @easing)`,
  ).run({ versionId, ...key });
}

export const deleteHandKey = (db: Db, versionId: string, pane: number, frame: number): void =>
  void db.prepare("DELETE FROM hand_keys WHERE version_id = ? AND pane = ? AND frame = ?").run(versionId, pane, frame);
