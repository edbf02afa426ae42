import type { JobKind, JobState } from "~/core/film-status";
import { type Db, inTransaction } from "./database.server";

export interface JobRow {
  id: string;
  filmId: string;
  kind: JobKind;
  state: JobState;
  /** What the job was asked for, as JSON that its kind understands. */
  payload: string;
  /** What is being done, in words. */
  step: string;
  /** 0 to 1. */
  progress: number;
  /** Where it was when it was last begun; null until it says so. */
  begunAtProgress: number | null;
  attempts: number;
  error: string | null;
  /** What came of it, as JSON. */
  result: string | null;
  startedAt: number | null;
}

const COLUMNS = `id, film_id AS filmId, kind, state, payload, step, progress, begun_at_progress AS begunAtProgress, attempts, error, result,
  started_at AS startedAt`;

/** After so many starts that all ended with the server and got nowhere, a job is given up: it may be what ends it. */
const MAX_ATTEMPTS = 4;
/** Share of a job that counts as having got somewhere. */
const SOME_PROGRESS = 0.01;

export function insertJob(db: Db, job: Pick<JobRow, "id" | "filmId" | "kind"> & { payload?: unknown }): void {
  db.prepare("INSERT INTO jobs (id, film_id, kind, state, payload, created_at) VALUES (?, ?, ?, 'queued', ?, ?)").run(
    job.id,
    job.filmId,
    job.kind,
    JSON.stringify(job.payload ?? {}),
    Date.now(),
  );
}

export const findJob = (db: Db, id: string): JobRow | null =>
  db.prepare<[string], JobRow>(`SELECT ${COLUMNS} FROM jobs WHERE id = ?`).get(id) ?? null;

export const listJobs = (db: Db, filmId: string): JobRow[] =>
  db.prepare<[string], JobRow>(`SELECT ${COLUMNS} FROM jobs WHERE film_id = ? ORDER BY created_at, rowid`).all(filmId);

/** Whether all of a film has been looked through. */
export const isAnalysed = (db: Db, filmId: string): boolean =>
  !listJobs(db, filmId).some(({ kind, state }) => kind === "analyse" && state !== "done");

/** Kinds of jobs before which somebody sits. */
export const URGENT: readonly JobKind[] = ["follow", "join"];
const IS_URGENT = `kind IN (${URGENT.map((kind) => `'${kind}'`).join(", ")})`;

/**
 * Takes the oldest waiting job, or null: one that is urgent, if there is any. While a film's clips are still to be brought
 * together, nothing else can be done with it.
 *
 * @param onlyUrgent whether others are left waiting
 */
export function takeJob(db: Db, onlyUrgent = false): JobRow | null {
  return inTransaction(db, () => {
    const job = db
      .prepare<[number], JobRow>(
        `SELECT ${COLUMNS} FROM jobs WHERE state = 'queued' AND (NOT ? OR ${IS_URGENT})
           AND (kind = 'join' OR NOT EXISTS (
             SELECT 1 FROM jobs AS other
             WHERE other.film_id = jobs.film_id AND other.kind = 'join' AND other.state <> 'done'))
         ORDER BY ${IS_URGENT} DESC, created_at, rowid LIMIT 1`,
      )
      .get(onlyUrgent ? 1 : 0);
    if (!job) return null;
    db.prepare(
      `UPDATE jobs SET state = 'running', attempts = attempts + 1, started_at = ?, progress = 0,
         begun_at_progress = NULL, step = ''
       WHERE id = ?`,
    ).run(Date.now(), job.id);
    return findJob(db, job.id);
  });
}

/** Notes how far a running job is. Once it has got on, earlier starts do not count any more. */
export const reportProgress = (db: Db, id: string, step: string, progress: number): void =>
  void db
    .prepare(
      `UPDATE jobs SET step = @step, progress = @progress,
         begun_at_progress = COALESCE(begun_at_progress, @progress),
         attempts = CASE WHEN @progress >= begun_at_progress + @some THEN 0 ELSE attempts END
       WHERE id = @id AND state = 'running'`,
    )
    .run({ id, step, progress, some: SOME_PROGRESS });

/** How a job ended. */
export interface JobEnd {
  state: "done" | "failed" | "cancelled";
  error?: string;
  result?: unknown;
}

/** Ends a job; one that has ended already stays as it is. */
export function finishJob(db: Db, id: string, end: JobEnd): void {
  db.prepare(
    `UPDATE jobs SET state = ?, error = ?, result = ?,
       progress = CASE WHEN ? = 'done' THEN 1 ELSE progress END
     WHERE id = ? AND state IN ('queued', 'running')`,
  ).run(end.state, end.error ?? null, end.result === undefined ? null : JSON.stringify(end.result), end.state, id);
}

/** Puts a job that has failed or was cancelled back into the queue. */
export const retryJob = (db: Db, id: string): void =>
  void db
    .prepare(
      `UPDATE jobs SET state = 'queued', error = NULL, attempts = 0, progress = 0
       WHERE id = ? AND state IN ('failed', 'cancelled')`,
    )
    .run(id);

/** Says that what came of a job is not there any more, and why; it can be done again. */
export const dropResult = (db: Db, id: string, why: string): void =>
  void db
    .prepare(
      "UPDATE jobs SET state = 'cancelled', result = NULL, error = ?, progress = 0 WHERE id = ? AND state = 'done'",
    )
    .run(why, id);

export const deleteJob = (db: Db, id: string): void => void db.prepare("DELETE FROM jobs WHERE id = ?").run(id);

/** Puts a running job back into the queue, as if it had not been started. */
export const giveBackJob = (db: Db, id: string): void =>
  void db
    .prepare("UPDATE jobs SET state = 'queued', attempts = MAX(0, attempts - 1) WHERE id = ? AND state = 'running'")
    .run(id);

/**
 * Takes up the jobs that a server left running when it ended: they wait again, or are given up when they have
 * been started too often. Call before the first job is taken.
 */
export function recoverJobs(db: Db): void {
  inTransaction(db, () => {
    db.prepare(
      `UPDATE jobs SET state = 'failed', error = 'Glad Pan stopped ' || attempts || ' times at the beginning of this. Start it again to try once more.'
       WHERE state = 'running' AND attempts >= ?`,
    ).run(MAX_ATTEMPTS);
    db.prepare("UPDATE jobs SET state = 'queued' WHERE state = 'running'").run();
  });
}

/** Share of a job that must be done before it tells how long the rest is going to take. */
const TELLING_SHARE = 0.02;

/** Seconds that a running job is still going to take, from how long it has taken since it was last begun; null when it is too early to say. */
export function secondsLeft({ state, startedAt, progress, begunAtProgress }: JobRow, now = Date.now()): number | null {
  const done = progress - (begunAtProgress ?? progress);
  if (state !== "running" || !startedAt || done < TELLING_SHARE) return null;
  return ((now - startedAt) / 1000) * ((1 - progress) / done);
}
