import type { FrameDetections } from "~/core/subjects/detection";
import type { Track } from "~/core/subjects/track";
import type { FrameRange } from "~/core/time/rate";
import type { Db } from "./database.server";

export interface ChunkRow {
  range: FrameRange;
  /** As `packFeatures` packs them. */
  features: Uint8Array;
  detections: FrameDetections[];
}

interface RawChunk {
  start_frame: number;
  end_frame: number;
  features: Buffer;
  detections: string;
}

export const listChunks = (db: Db, filmId: string): ChunkRow[] =>
  db
    .prepare<[string], RawChunk>("SELECT * FROM analysis_chunks WHERE film_id = ? ORDER BY start_frame")
    .all(filmId)
    .map((row) => ({
      range: { start: row.start_frame, end: row.end_frame },
      features: row.features,
      detections: JSON.parse(row.detections) as FrameDetections[],
    }));

export function insertChunk(db: Db, filmId: string, chunk: ChunkRow): void {
  db.prepare("INSERT OR REPLACE INTO analysis_chunks VALUES (?, ?, ?, ?, ?)").run(
    filmId,
    chunk.range.start,
    chunk.range.end,
    Buffer.from(chunk.features),
    JSON.stringify(chunk.detections),
  );
}

/** Tracks of one shot; null while it has not been looked through. */
export function findTracks(db: Db, filmId: string, shot: FrameRange): Track[] | null {
  const row = db
    .prepare<[string, number, number], { tracks: string }>(
      "SELECT tracks FROM shot_tracks WHERE film_id = ? AND start_frame = ? AND end_frame = ?",
    )
    .get(filmId, shot.start, shot.end);
  return row ? (JSON.parse(row.tracks) as Track[]) : null;
}

export function saveTracks(db: Db, filmId: string, shot: FrameRange, tracks: readonly Track[]): void {
  db.prepare("INSERT OR REPLACE INTO shot_tracks VALUES (?, ?, ?, ?)").run(
    filmId,
    shot.start,
    shot.end,
    JSON.stringify(tracks),
  );
}
