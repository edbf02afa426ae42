import { z } from "zod";
import { TransitionCandidate } from "~/core/shots/detect-transitions";
import type { TransitionsSoFar } from "~/core/shots/find-transitions";
import type { CameraStep } from "~/core/subjects/detecting/camera-motion";
import type { FrameDetections } from "~/core/subjects/detecting/detection";
import { type PackedTrack, packTrack } from "~/core/subjects/tracking/packed-tracks";
import type { Track } from "~/core/subjects/tracking/track";
import { type FrameRange } from "~/core/time/rate";
import { joinRanges } from "~/core/time/ranges";
import type { Db } from "./database.server";
import { StoredTracks } from "./stored-tracks";

export interface ChunkRow {
  range: FrameRange;
  /** As packed by `packFeatures`; empty when they are no longer needed. */
  features: Uint8Array;
  detected: FrameDetections[];
  camera: CameraStep[];
}

const Candidates = z.array(TransitionCandidate);

/** Detections are large and soon discarded: only that they are a list of the right kind is checked. */
const StoredDetections = z.object({
  detected: z.array(z.custom<FrameDetections>((each) => z.looseObject({ frame: z.number() }).safeParse(each).success)),
  camera: z.array(z.custom<CameraStep>((each) => z.looseObject({ frame: z.number() }).safeParse(each).success)),
});

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
      ...StoredDetections.parse(JSON.parse(row.detections)),
    }));

export function insertChunk(db: Db, filmId: string, chunk: ChunkRow): void {
  db.prepare(
    `INSERT OR REPLACE INTO analysis_chunks (film_id, start_frame, end_frame, features, detections)
     VALUES (?, ?, ?, ?, ?)`,
  ).run(
    filmId,
    chunk.range.start,
    chunk.range.end,
    Buffer.from(chunk.features),
    JSON.stringify({ detected: chunk.detected, camera: chunk.camera }),
  );
}

/** Discards the features of chunks that end by a frame; they are most of a chunk. */
export function dropFeatures(db: Db, filmId: string, before: number): void {
  db.prepare("UPDATE analysis_chunks SET features = x'' WHERE film_id = ? AND end_frame <= ?").run(filmId, before);
}

/** Discards the chunks that end by a frame. */
export function dropChunks(db: Db, filmId: string, before: number): void {
  db.prepare("DELETE FROM analysis_chunks WHERE film_id = ? AND end_frame <= ?").run(filmId, before);
}

/** Ranges that were analysed as one shot each, by start, the longer of two first. */
export const listAnalysed = (db: Db, filmId: string): FrameRange[] =>
  db
    .prepare<[string], FrameRange>(
      `SELECT start_frame AS start, end_frame AS "end" FROM shot_tracks WHERE film_id = ?
       ORDER BY start_frame, end_frame DESC`,
    )
    .all(filmId);

/** The tracks of a range that was analysed as one shot. */
export function readTracks(db: Db, filmId: string, { start, end }: FrameRange): PackedTrack[] {
  const row = db
    .prepare<[string, number, number], { tracks: string }>(
      "SELECT tracks FROM shot_tracks WHERE film_id = ? AND start_frame = ? AND end_frame = ?",
    )
    .get(filmId, start, end);
  return row ? StoredTracks.parse(JSON.parse(row.tracks)) : [];
}

/** Stores the findings of a shot that was analysed. */
export function saveTracks(db: Db, filmId: string, shot: FrameRange, tracks: readonly Track[]): void {
  db.prepare("INSERT OR REPLACE INTO shot_tracks (film_id, start_frame, end_frame, tracks) VALUES (?, ?, ?, ?)").run(
    filmId,
    shot.start,
    shot.end,
    JSON.stringify(tracks.map(packTrack)),
  );
}

export function saveTransitions(db: Db, filmId: string, { candidates, settled }: TransitionsSoFar): void {
  db.prepare(
    `INSERT INTO transition_candidates (film_id, candidates, settled) VALUES (?, ?, ?)
     ON CONFLICT (film_id) DO UPDATE SET candidates = excluded.candidates, settled = excluded.settled`,
  ).run(filmId, JSON.stringify(candidates), settled);
}

/**
 * Begins to analyse a part of a film, and discards detections since the last finished shot. To be called in a transaction.
 * @param begins the cut at its start, if that has just been found
 */
export function beginPass(db: Db, filmId: string, pass: FrameRange, begins: TransitionCandidate | null): void {
  db.prepare("DELETE FROM analysis_chunks WHERE film_id = ?").run(filmId);
  const known = findCandidates(db, filmId).filter(({ transition }) => transition.frame !== begins?.transition.frame);
  saveTransitions(db, filmId, { candidates: begins ? [...known, begins] : known, settled: pass.start });
  db.prepare("UPDATE transition_candidates SET pass_start = ?, pass_end = ? WHERE film_id = ?").run(
    pass.start,
    pass.end,
    filmId,
  );
}

/** The part of a film whose analysis was begun last; null if that is unknown. */
export const findPass = (db: Db, filmId: string): FrameRange | null =>
  db
    .prepare<[string], FrameRange>(
      `SELECT pass_start AS start, pass_end AS "end" FROM transition_candidates
       WHERE film_id = ? AND pass_start IS NOT NULL AND pass_end IS NOT NULL`,
    )
    .get(filmId) ?? null;

/** The transitions found so far in a film; null while there are none. */
export function findTransitions(db: Db, filmId: string): TransitionsSoFar | null {
  const row = db
    .prepare<[string], { candidates: string; settled: number }>(
      "SELECT candidates, settled FROM transition_candidates WHERE film_id = ?",
    )
    .get(filmId);
  return row ? { candidates: Candidates.parse(JSON.parse(row.candidates)), settled: row.settled } : null;
}

/** The possible transitions of a film; none while it has not been analysed. */
export const findCandidates = (db: Db, filmId: string): TransitionCandidate[] =>
  findTransitions(db, filmId)?.candidates ?? [];

/** Stores frames whose pictures could not be decoded. */
export function saveUndecoded(db: Db, filmId: string, ranges: readonly FrameRange[]): void {
  const insert = db.prepare(
    "INSERT OR REPLACE INTO undecoded_frames (film_id, start_frame, end_frame) VALUES (?, ?, ?)",
  );
  for (const { start, end } of ranges) insert.run(filmId, start, end);
}

/** Frames whose pictures could not be decoded, as far as the film has been analysed. */
export const listUndecoded = (db: Db, filmId: string): FrameRange[] =>
  joinRanges(
    db
      .prepare<[string], FrameRange>(
        `SELECT start_frame AS start, end_frame AS "end" FROM undecoded_frames WHERE film_id = ? ORDER BY start_frame`,
      )
      .all(filmId),
  );
