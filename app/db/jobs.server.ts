import { nanoid } from "nanoid";
import type { JobKind, JobState } from "~/core/film/film-status";
import { type Db, inTransaction } from "./database.server";
import { JobWork, type NewWork, type WorkOf } from "./job-work";
import { readableOrNull } from "./readable";

export interface JobRow {
  id: string;
  filmId: string;
  kind: JobKind;
  state: JobState;
  /** Its request and result; null where they cannot be read. */
  work: JobWork | null;
  /** What is being done, in words. */
  step: string;
  /** 0 to 1. */
  progress: number;
  /** Progress when it was last begun; null until it reports any. */
  begunAtProgress: number | null;
  attempts: number;
  error: string | null;
  startedAt: number | null;
  finishedAt: number | null;
  /** Whether it waits to be resumed: 0 or 1. */
  paused: number;
}

const COLUMNS = `id, film_id AS filmId, kind, state, payload, step, progress, begun_at_progress AS begunAtProgress, attempts, error, result,
  started_at AS startedAt, finished_at AS finishedAt, paused`;

/** Number of starts that ended with the server without progress after which a job is given up: it may be the cause. */
const MAX_ATTEMPTS = 4;
/** Share of a job that counts as progress inside a step. */
const SOME_PROGRESS = 0.01;
const GOT_ON = `@progress >= headway + ${SOME_PROGRESS} OR (step <> @step AND @progress > headway)`;

interface StoredJob extends Omit<JobRow, "work"> {
  /** Both as JSON. */
  payload: string;
  result: string | null;
}

const fromStored = ({ payload, result, ...job }: StoredJob): JobRow => ({
  ...job,
  work: readableOrNull(() =>
    JobWork.parse({
      kind: job.kind,
      asked: JSON.parse(payload),
      result: result === null ? null : JSON.parse(result),
    }),
  ),
});

/** Queues a job; returns its id. */
export function insertJob(
  db: Db,
  { id = nanoid(10), filmId, kind, asked = {} }: NewWork & { id?: string; filmId: string },
): string {
  db.prepare(
    `INSERT INTO jobs (id, film_id, kind, state, payload, created_at, position)
     VALUES (@id, @filmId, @kind, 'queued', @payload, @now,
       CASE WHEN @kind = 'render' THEN (SELECT COALESCE(MAX(position), 0) + 1 FROM jobs) ELSE 0 END)`,
  ).run({
    id,
    filmId,
    kind,
    payload: JSON.stringify(asked),
    now: Date.now(),
  });
  return id;
}

export function findJob(db: Db, id: string): JobRow | null {
  const job = db.prepare<[string], StoredJob>(`SELECT ${COLUMNS} FROM jobs WHERE id = ?`).get(id);
  return job ? fromStored(job) : null;
}

/** Renders of all films, in order of the queue. */
export const listRenders = (db: Db): JobRow[] =>
  db
    .prepare<[], StoredJob>(`SELECT ${COLUMNS} FROM jobs WHERE kind = 'render' ORDER BY position, created_at, rowid`)
    .all()
    .map(fromStored);

/** Reorders waiting renders; those not named follow the others. */
export function orderRenders(db: Db, ids: readonly string[]): void {
  inTransaction(db, () => {
    const waiting = listRenders(db).filter(({ state }) => state === "queued");
    const rank = new Map(ids.map((id, i) => [id, i]));
    const places = db.prepare<[string], { position: number }>("SELECT position FROM jobs WHERE id = ?");
    const positions = waiting.map(({ id }) => places.get(id)!.position).sort((a, b) => a - b);
    const ordered = waiting.toSorted((a, b) => (rank.get(a.id) ?? Infinity) - (rank.get(b.id) ?? Infinity) || 0);
    const place = db.prepare("UPDATE jobs SET position = ? WHERE id = ?");
    ordered.forEach(({ id }, i) => place.run(positions[i]!, id));
  });
}

/** Pauses or resumes a waiting job. */
export const setPaused = (db: Db, id: string, isPaused: boolean): void =>
  void db.prepare("UPDATE jobs SET paused = ? WHERE id = ?").run(isPaused ? 1 : 0, id);

export const listJobs = (db: Db, filmId: string): JobRow[] =>
  db
    .prepare<[string], StoredJob>(`SELECT ${COLUMNS} FROM jobs WHERE film_id = ? ORDER BY created_at, rowid`)
    .all(filmId)
    .map(fromStored);

/** Whether the whole film has been analysed. */
export const isAnalysed = (db: Db, filmId: string): boolean =>
  !listJobs(db, filmId).some(({ kind, state }) => kind === "analyse" && state !== "done");

/** Kinds of jobs that somebody is waiting for. */
export const URGENT: readonly JobKind[] = ["follow", "join"];
const IS_URGENT = `kind IN (${URGENT.map((kind) => `'${kind}'`).join(", ")})`;

/**
 * Takes the oldest waiting job, urgent ones first, or returns null. While a film's clips are being joined, nothing else can
 * be done with it. One render runs at a time: it uses all cores. One mark is followed at a time, so that a thousand of them
 * do not block other films.
 * @param onlyUrgent whether others are left waiting
 */
export function takeJob(db: Db, onlyUrgent = false): JobRow | null {
  return inTransaction(db, () => {
    const job = db
      .prepare<[number], { id: string }>(
        `SELECT id FROM jobs WHERE state = 'queued' AND paused = 0 AND (NOT ? OR ${IS_URGENT})
           AND (kind <> 'render' OR NOT EXISTS (
             SELECT 1 FROM jobs AS other WHERE other.kind = 'render' AND other.state = 'running'))
           AND (kind <> 'follow' OR NOT EXISTS (
             SELECT 1 FROM jobs AS other WHERE other.kind = 'follow' AND other.state = 'running'))
           AND (kind = 'join' OR NOT EXISTS (
             SELECT 1 FROM jobs AS other
             WHERE other.film_id = jobs.film_id AND other.kind = 'join' AND other.state <> 'done'))
         ORDER BY ${IS_URGENT} DESC, position, created_at, rowid LIMIT 1`,
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

/**
 * Stores the progress of a running job. Earlier starts no longer count once this one gets clearly further, or begins a step
 * further on because an earlier result was kept: a job is given up only where it stops at one place repeatedly. The
 * remaining time is estimated from the present step: what existed when it began is no work.
 */
export const reportProgress = (db: Db, id: string, step: string, progress: number, now = Date.now()): void =>
  void db
    .prepare(
      `UPDATE jobs SET step = @step, progress = @progress,
         begun_at_progress = CASE WHEN step = @step THEN COALESCE(begun_at_progress, @progress) ELSE @progress END,
         started_at = CASE WHEN step = @step THEN started_at ELSE @now END,
         attempts = CASE WHEN ${GOT_ON} THEN 0 ELSE attempts END,
         headway = CASE WHEN ${GOT_ON} THEN @progress ELSE headway END
       WHERE id = @id AND state = 'running'`,
    )
    .run({ id, step, progress, now });

/** How a job ended. */
export interface JobEnd {
  state: "done" | "failed" | "cancelled";
  error?: string;
  result?: unknown;
}

/** Ends a job; an ended one stays as it is. */
export function finishJob(db: Db, id: string, end: JobEnd): void {
  db.prepare(
    `UPDATE jobs SET state = ?, error = ?, result = ?, finished_at = ?, paused = 0,
       progress = CASE WHEN ? = 'done' THEN 1 ELSE progress END
     WHERE id = ? AND state IN ('queued', 'running')`,
  ).run(
    end.state,
    end.error ?? null,
    end.result === undefined ? null : JSON.stringify(end.result),
    Date.now(),
    end.state,
    id,
  );
}

/** Queues a failed or cancelled job again. */
export const retryJob = (db: Db, id: string): void =>
  void db
    .prepare(
      `UPDATE jobs SET state = 'queued', error = NULL, attempts = 0, progress = 0, headway = 0, paused = 0
       WHERE id = ? AND state IN ('failed', 'cancelled')`,
    )
    .run(id);

/** Marks the result of a job as gone, with the reason; it can be made again. */
export const dropResult = (db: Db, id: string, why: string): void =>
  void db
    .prepare(
      "UPDATE jobs SET state = 'cancelled', result = NULL, error = ?, progress = 0 WHERE id = ? AND state = 'done'",
    )
    .run(why, id);

export const deleteJob = (db: Db, id: string): void => void db.prepare("DELETE FROM jobs WHERE id = ?").run(id);

/** Queues a running job again, as if it had not been started. */
export const giveBackJob = (db: Db, id: string): void =>
  void db
    .prepare("UPDATE jobs SET state = 'queued', attempts = MAX(0, attempts - 1) WHERE id = ? AND state = 'running'")
    .run(id);

/**
 * Recovers the jobs that an ended server left running: they are queued again, or given up when they have been started too
 * often. Call before the first job is taken.
 */
export function recoverJobs(db: Db): void {
  inTransaction(db, () => {
    db.prepare(
      `UPDATE jobs SET state = 'failed', error = 'Glad Pan stopped ' || attempts || ' times at the same place of this. Start it again to try once more.'
       WHERE state = 'running' AND attempts >= ?`,
    ).run(MAX_ATTEMPTS);
    db.prepare("UPDATE jobs SET state = 'queued' WHERE state = 'running'").run();
  });
}

/** Share of a job that must be done for an estimate of the remaining time. */
const TELLING_SHARE = 0.02;

/** Remaining seconds of a running job, from the time since it was last begun; null when it is too early to tell. */
export function secondsLeft({ state, startedAt, progress, begunAtProgress }: JobRow, now = Date.now()): number | null {
  const done = progress - (begunAtProgress ?? progress);
  if (state !== "running" || !startedAt || done < TELLING_SHARE) return null;
  return ((now - startedAt) / 1000) * ((1 - progress) / done);
}

/** Requests and results of jobs of one kind; unreadable ones are omitted. */
export const ofKind = <K extends JobKind>(jobs: readonly JobRow[], kind: K): { job: JobRow; work: WorkOf<K> }[] =>
  jobs.flatMap((job) => (job.work?.kind === kind ? [{ job, work: job.work as WorkOf<K> }] : []));
