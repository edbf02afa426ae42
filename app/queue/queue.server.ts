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
/** What somebody sits before is not kept waiting by them. */
const PLACES_WITH_URGENT = 3;
/** Until something that could not be written is tried again: the disk may have room by then. */
const TRY_AGAIN_MS = 3000;
/** As long as a worker may take to stop. */
const STOP_MS = 6000;

interface Running {
  worker: Worker;
  ended: Promise<void>;
  /** Whether it has been told to give its job back, to wait. */
  isPausing: boolean;
}

interface Queue {
  running: Map<string, Running>;
  /** One that has loaded its code and waits, so that the next job begins at once. */
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

/** Writes to the database, now or as soon as it can be written to again. */
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
  // The worker itself writes how its job ended; this is for one that could not.
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

/** Begins to work: first takes up what an ended server has left. Called once, when the server starts. */
export function startQueue(): void {
  if (queue().state !== "new") return;
  queue().state = "started";
  insist(() => {
    recoverJobs(db());
    wakeQueue();
  });
}

/** Takes up no more work, and gives back what is under way, to go on at the next start. */
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
 * Cancels a job, whether it waits or runs.
 *
 * @returns when nothing works on it any more
 */
export async function cancelJob(id: string): Promise<void> {
  const running = queue().running.get(id);
  if (!running) return finishJob(db(), id, { state: "cancelled" });
  running.worker.postMessage("cancel" satisfies WorkerOrder);
  await running.ended;
}

/** Lets a job wait; one that runs gives its place to the next, and goes on later where it was. */
async function pauseJob(id: string): Promise<void> {
  setPaused(db(), id, true);
  const running = queue().running.get(id);
  if (!running) return;
  running.isPausing = true;
  running.worker.postMessage("give back" satisfies WorkerOrder);
  await running.ended;
}

/** What can be done to a job: one that has failed or was cancelled can be put back into the queue. */
export const JOB_CHANGES = ["cancel", "retry", "pause", "resume"] as const;
export type JobChange = (typeof JOB_CHANGES)[number];

export async function changeJob(id: string, how: JobChange): Promise<void> {
  if (how === "cancel") return cancelJob(id);
  if (how === "pause") return pauseJob(id);
  if (how === "retry") retryJob(db(), id);
  else setPaused(db(), id, false);
  wakeQueue();
}
