import type { TransitionCandidate } from "~/core/shots/detect-transitions";
import type { TransitionsSoFar } from "~/core/shots/find-transitions";
import type { CameraStep } from "~/core/subjects/detecting/camera-motion";
import type { FrameDetections } from "~/core/subjects/detecting/detection";
import { reshapeTracks } from "~/core/subjects/tracking/reshape-tracks";
import type { Track } from "~/core/subjects/tracking/track";
import { type FrameRange, joinRanges } from "~/core/time/rate";
import type { Db } from "./database.server";

export interface ChunkRow {
  range: FrameRange;
  /** As `packFeatures` packs them; empty when they are done with. */
  features: Uint8Array;
  looks: FrameDetections[];
  camera: CameraStep[];
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
      ...(JSON.parse(row.detections) as Pick<ChunkRow, "looks" | "camera">),
    }));

export function insertChunk(db: Db, filmId: string, chunk: ChunkRow): void {
  db.prepare("INSERT OR REPLACE INTO analysis_chunks VALUES (?, ?, ?, ?, ?)").run(
    filmId,
    chunk.range.start,
    chunk.range.end,
    Buffer.from(chunk.features),
    JSON.stringify({ looks: chunk.looks, camera: chunk.camera }),
  );
}

/** Forgets the features of chunks that end no later than a frame; they are most of a chunk. */
export function dropFeatures(db: Db, filmId: string, before: number): void {
  db.prepare("UPDATE analysis_chunks SET features = x'' WHERE film_id = ? AND end_frame <= ?").run(filmId, before);
}

/** Forgets the chunks that end no later than a frame. */
export function dropChunks(db: Db, filmId: string, before: number): void {
  db.prepare("DELETE FROM analysis_chunks WHERE film_id = ? AND end_frame <= ?").run(filmId, before);
}

/** Tracks of shots as they are now, which may be made of parts of those that were analysed; one list a shot. */
export function tracksOf(db: Db, filmId: string, shots: readonly FrameRange[]): Track[][] {
  const rows = db
    .prepare<[string], { start_frame: number; end_frame: number; tracks: string }>(
      "SELECT * FROM shot_tracks WHERE film_id = ? ORDER BY start_frame, end_frame DESC",
    )
    .all(filmId);
  /** Tracks of each row, read when a shot first needs them. */
  const read = new Map<(typeof rows)[number], Track[]>();
  const tracksIn = (row: (typeof rows)[number]): Track[] => {
    let tracks = read.get(row);
    if (!tracks) read.set(row, (tracks = JSON.parse(row.tracks) as Track[]));
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

/** Where the last shot that was analysed ends; 0 before the first. */
export const analysedTo = (db: Db, filmId: string): number =>
  db
    .prepare<[string], { to: number }>("SELECT COALESCE(MAX(end_frame), 0) AS 'to' FROM shot_tracks WHERE film_id = ?")
    .get(filmId)!.to;

/** Keeps what was found in a shot as it was analysed. */
export function saveTracks(
  db: Db,
  filmId: string,
  shot: FrameRange,
  tracks: readonly Track[],
  camera: readonly CameraStep[],
): void {
  db.prepare("INSERT OR REPLACE INTO shot_tracks VALUES (?, ?, ?, ?, ?)").run(
    filmId,
    shot.start,
    shot.end,
    JSON.stringify(tracks),
    JSON.stringify(camera),
  );
}

export function saveTransitions(db: Db, filmId: string, { candidates, settled }: TransitionsSoFar): void {
  db.prepare("INSERT OR REPLACE INTO transition_candidates VALUES (?, ?, ?)").run(
    filmId,
    JSON.stringify(candidates),
    settled,
  );
}

/** What is known of a film's transitions; null while nothing is. */
export function findTransitions(db: Db, filmId: string): TransitionsSoFar | null {
  const row = db
    .prepare<[string], { candidates: string; settled: number }>(
      "SELECT candidates, settled FROM transition_candidates WHERE film_id = ?",
    )
    .get(filmId);
  return row ? { candidates: JSON.parse(row.candidates) as TransitionCandidate[], settled: row.settled } : null;
}

/** What may be a transition; nothing while the film has not been analysed. */
export const findCandidates = (db: Db, filmId: string): TransitionCandidate[] =>
  findTransitions(db, filmId)?.candidates ?? [];

/** Notes frames whose pictures could not be decoded. */
export function saveUndecoded(db: Db, filmId: string, ranges: readonly FrameRange[]): void {
  const insert = db.prepare("INSERT OR REPLACE INTO undecoded_frames VALUES (?, ?, ?)");
  for (const { start, end } of ranges) insert.run(filmId, start, end);
}

/** Frames whose pictures could not be decoded, as far as the film has been looked through. */
export const listUndecoded = (db: Db, filmId: string): FrameRange[] =>
  joinRanges(
    db
      .prepare<[string], FrameRange>(
        `SELECT start_frame AS start, end_frame AS "end" FROM undecoded_frames WHERE film_id = ? ORDER BY start_frame`,
      )
      .all(filmId),
  );
