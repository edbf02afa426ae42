import type { TransitionCandidate } from "~/core/shots/detect-transitions";
import type { FrameDetections } from "~/core/subjects/detection";
import { reshapeTracks } from "~/core/subjects/reshape-tracks";
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

/** Tracks of one shot as it was analysed; null while it has not been looked through. */
export function findTracks(db: Db, filmId: string, shot: FrameRange): Track[] | null {
  const row = db
    .prepare<[string, number, number], { tracks: string }>(
      "SELECT tracks FROM shot_tracks WHERE film_id = ? AND start_frame = ? AND end_frame = ?",
    )
    .get(filmId, shot.start, shot.end);
  return row ? (JSON.parse(row.tracks) as Track[]) : null;
}

/** Tracks of shots as they are now, which may be made of parts of those that were analysed; one list a shot. */
export function tracksOf(db: Db, filmId: string, shots: readonly FrameRange[]): Track[][] {
  const rows = db
    .prepare<[string], { start_frame: number; end_frame: number; tracks: string }>(
      "SELECT * FROM shot_tracks WHERE film_id = ? ORDER BY start_frame, end_frame DESC",
    )
    .all(filmId);
  const read = new Map<string, Track[]>();
  const tracksIn = (row: (typeof rows)[number]): Track[] => {
    let tracks = read.get(row.tracks);
    if (!tracks) read.set(row.tracks, (tracks = JSON.parse(row.tracks) as Track[]));
    return tracks;
  };
  return shots.map((shot) => {
    const exact = rows.find((row) => row.start_frame === shot.start && row.end_frame === shot.end);
    if (exact) return tracksIn(exact);
    // Analyses at other cuts may have left other ranges; of those that overlap, the first and longest counts.
    const pool: Track[][] = [];
    let covered = -1;
    for (const row of rows) {
      if (row.end_frame <= shot.start || row.start_frame >= shot.end || row.start_frame < covered) continue;
      covered = row.end_frame;
      pool.push(tracksIn(row));
    }
    return reshapeTracks(shot, pool);
  });
}

export function saveTracks(db: Db, filmId: string, shot: FrameRange, tracks: readonly Track[]): void {
  db.prepare("INSERT OR REPLACE INTO shot_tracks VALUES (?, ?, ?, ?)").run(
    filmId,
    shot.start,
    shot.end,
    JSON.stringify(tracks),
  );
}

export function saveCandidates(db: Db, filmId: string, candidates: readonly TransitionCandidate[]): void {
  db.prepare("INSERT OR REPLACE INTO transition_candidates VALUES (?, ?)").run(filmId, JSON.stringify(candidates));
}

/** What may be a transition; nothing while the film has not been analysed. */
export function findCandidates(db: Db, filmId: string): TransitionCandidate[] {
  const row = db
    .prepare<[string], { candidates: string }>("SELECT candidates FROM transition_candidates WHERE film_id = ?")
    .get(filmId);
  return row ? (JSON.parse(row.candidates) as TransitionCandidate[]) : [];
}
