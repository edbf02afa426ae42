import { existsSync, readdirSync, rmSync } from "node:fs";
import { join } from "node:path";
import { Worker } from "node:worker_threads";
import pino from "pino";
import { isAside } from "~/disk/write-aside.server";
import { finishJob, type JobRow, recoverJobs, takeJob } from "~/db/jobs.server";
import { projectPath } from "~/media/project-path.server";
import type { WorkerOrder } from "./worker-order";
import { dataFolder, databaseFile, db } from "./workplace.server";

const log = pino({ name: "jobs" });

/** Jobs at a time: one that decodes and one that computes keep two cores busy. */
const PLACES = 2;
/** A mark is not kept waiting by them: somebody sits before it. */
const PLACES_WITH_MARK = 3;

interface Queue {
  running: Map<string, Worker>;
  /** One that has loaded its code and waits, so that the next job begins at once. */
  spare: Worker | null;
  started: boolean;
}
const kept = globalThis as { gladPanQueue?: Queue };
const queue = (): Queue => (kept.gladPanQueue ??= { running: new Map(), spare: null, started: false });

/** In development the worker's TypeScript is loaded as it is; a build has it as one file. */
function createWorker(): Worker {
  const built = import.meta.env?.PROD;
  const entry = projectPath(built ? "build/server/job-worker.js" : "app/jobs/worker-dev.mjs");
  return new Worker(entry, { workerData: { databaseFile: databaseFile() } });
}

function keepSpare(): void {
  const kept = queue();
  if (kept.spare) return;
  const worker = createWorker();
  kept.spare = worker;
  const drop = () => {
    if (kept.spare === worker) kept.spare = null;
  };
  worker.once("error", drop);
  worker.once("exit", drop);
}

function run(job: JobRow): void {
  const { running, spare } = queue();
  const worker = spare ?? createWorker();
  queue().spare = null;
  running.set(job.id, worker);
  worker.postMessage({ run: job.id } satisfies WorkerOrder);
  log.info({ job: job.id, kind: job.kind, attempt: job.attempts }, "started");
  // The worker itself writes how its job ended; this is for a worker that could not.
  worker.on("error", (error) => {
    log.error({ job: job.id, error: error.message }, "worker failed");
    finishJob(db(), job.id, { state: "failed", error: error.message });
  });
  worker.on("exit", () => {
    running.delete(job.id);
    finishJob(db(), job.id, { state: "failed", error: "The work ended without a result. Start it again." });
    log.info({ job: job.id }, "ended");
    wakeQueue();
  });
}

/** Starts waiting jobs while there are places for them. */
export function wakeQueue(): void {
  const { running, started } = queue();
  while (started && running.size < PLACES_WITH_MARK) {
    const job = takeJob(db(), running.size < PLACES ? null : "follow");
    if (!job) break;
    run(job);
  }
  if (started) keepSpare();
}

/** Removes half-written files that an ended server has left in the films' folders. */
function sweep(folder: string): void {
  if (!existsSync(folder)) return;
  for (const entry of readdirSync(folder, { withFileTypes: true, recursive: true })) {
    if (entry.isFile() && isAside(entry.name)) rmSync(join(entry.parentPath, entry.name), { force: true });
  }
}

/** Begins to work: first takes up what an ended server has left. Called once, when the server starts. */
export function startQueue(): void {
  if (queue().started) return;
  queue().started = true;
  recoverJobs(db());
  sweep(join(dataFolder(), "films"));
  wakeQueue();
}

/** Cancels a job, whether it waits or runs. */
export function cancelJob(id: string): void {
  const worker = queue().running.get(id);
  if (worker) worker.postMessage("cancel" satisfies WorkerOrder);
  else finishJob(db(), id, { state: "cancelled" });
}
