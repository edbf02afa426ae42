import type { Worker } from "node:worker_threads";
import pino from "pino";
import {
  finishJob,
  giveBackJob,
  type JobEnd,
  type JobRow,
  recoverJobs,
  retryJob,
  setPaused,
  takeJob,
} from "~/db/jobs.server";
import { startWorker } from "~/media/worker-thread.server";
import type { UnwrittenEnd, WorkerOrder } from "./worker-order";
import { databaseFile, db } from "~/db/workplace.server";

const log = pino({ name: "jobs" });

/** Jobs at a time: one that decodes and one that computes keep two cores busy. */
const PLACES = 2;
/** Additional places for jobs that somebody is waiting for. */
const PLACES_WITH_URGENT = 3;
/** Milliseconds until a failed write is repeated: the disk may have space by then. */
const TRY_AGAIN_MS = 3000;
/** Longest time for a worker to stop. */
const STOP_MS = 6000;

interface Running {
  worker: Worker;
  ended: Promise<void>;
  /** Whether it was told to return its job to the queue. */
  isPausing: boolean;
}

interface Queue {
  running: Map<string, Running>;
  /** A worker that has loaded its code and waits, so that the next job begins at once. */
  spare: Worker | null;
  state: "new" | "started" | "stopping";
}
const shared = globalThis as { gladPanQueue?: Queue };
const queue = (): Queue => (shared.gladPanQueue ??= { running: new Map(), spare: null, state: "new" });

const createWorker = (): Worker =>
  startWorker("job-worker.js", "app/jobs/worker-dev.mjs", { databaseFile: databaseFile() });

function keepSpare(): void {
  const own = queue();
  if (own.spare) return;
  const worker = createWorker();
  own.spare = worker;
  const drop = () => {
    if (own.spare === worker) own.spare = null;
  };
  worker.once("error", drop);
  worker.once("exit", drop);
}

/** Writes to the database, now or as soon as that is possible. */
function insist(write: () => void): void {
  try {
    write();
  } catch (error) {
    log.error({ error: error instanceof Error ? error.message : error }, "not written; trying again");
    if (queue().state !== "stopping") setTimeout(() => insist(write), TRY_AGAIN_MS).unref();
  }
}

function run(job: JobRow): void {
  const { running, spare } = queue();
  const worker = spare ?? createWorker();
  queue().spare = null;
  const ended = new Promise<void>((resolve) => worker.once("exit", () => resolve()));
  running.set(job.id, { worker, ended, isPausing: false });
  worker.postMessage({ run: job.id } satisfies WorkerOrder);
  log.info({ job: job.id, kind: job.kind, attempt: job.attempts }, "started");
  // The worker itself stores how its job ended; this is for one that could not.
  let end: JobEnd = { state: "failed", error: "The job ended without a result. Start it again." };
  worker.on("message", ({ unwritten }: UnwrittenEnd) => {
    end = unwritten;
  });
  worker.on("error", (error) => {
    const message = error instanceof Error ? error.message : String(error);
    log.error({ job: job.id, error: message }, "worker failed");
    end = { state: "failed", error: message };
  });
  worker.on("exit", () => {
    const isPausing = running.get(job.id)?.isPausing;
    running.delete(job.id);
    log.info({ job: job.id }, "ended");
    if (queue().state === "stopping") return;
    insist(() => (isPausing ? giveBackJob(db(), job.id) : finishJob(db(), job.id, end)));
    wakeQueue();
  });
}

/** Starts waiting jobs while there are places for them. */
export function wakeQueue(): void {
  const { running, state } = queue();
  if (state !== "started") return;
  insist(() => {
    while (running.size < PLACES_WITH_URGENT) {
      const job = takeJob(db(), running.size >= PLACES);
      if (!job) break;
      run(job);
    }
  });
  keepSpare();
}

/** Starts the queue: first recovers the jobs of an ended server. Called once, when the server starts. */
export function startQueue(): void {
  if (queue().state !== "new") return;
  queue().state = "started";
  insist(() => {
    recoverJobs(db());
    wakeQueue();
  });
}

/** Starts no more jobs, and returns running ones to the queue, to be resumed at the next start. */
export async function stopQueue(): Promise<void> {
  const stopping = queue();
  stopping.state = "stopping";
  const jobs = [...stopping.running];
  for (const [, { worker }] of jobs) worker.postMessage("give back" satisfies WorkerOrder);
  const tooLong = new Promise<void>((resolve) => setTimeout(resolve, STOP_MS).unref());
  await Promise.race([Promise.all(jobs.map(([, { ended }]) => ended)), tooLong]);
  for (const id of stopping.running.keys()) insist(() => giveBackJob(db(), id));
}

/**
 * Cancels a waiting or running job.
 * @returns when nothing works on it any more
 */
export async function cancelJob(id: string): Promise<void> {
  const running = queue().running.get(id);
  if (!running) return finishJob(db(), id, { state: "cancelled" });
  running.worker.postMessage("cancel" satisfies WorkerOrder);
  await running.ended;
}

/** Pauses a job; a running one gives its place to the next, and is resumed later. */
async function pauseJob(id: string): Promise<void> {
  setPaused(db(), id, true);
  const running = queue().running.get(id);
  if (!running) return;
  running.isPausing = true;
  running.worker.postMessage("give back" satisfies WorkerOrder);
  await running.ended;
}

/** Commands on a job: a failed or cancelled one can be queued again. */
export const JOB_CHANGES = ["cancel", "retry", "pause", "resume"] as const;
export type JobChange = (typeof JOB_CHANGES)[number];

export async function changeJob(id: string, how: JobChange): Promise<void> {
  if (how === "cancel") return cancelJob(id);
  if (how === "pause") return pauseJob(id);
  if (how === "retry") retryJob(db(), id);
  else setPaused(db(), id, false);
  wakeQueue();
}
