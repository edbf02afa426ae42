/** Entry of a worker thread: carries out one job and stores its progress and its result. */
import { setPriority } from "node:os";
import { parentPort, workerData } from "node:worker_threads";
import { openDatabase } from "~/db/database.server";
import { findJob, finishJob, giveBackJob, type JobEnd, reportProgress, URGENT } from "~/db/jobs.server";
import { CancelledError } from "~/media/tool.server";
import { failureMessage } from "./failure-message.server";
import { runJob } from "./run-job.server";
import type { UnwrittenEnd, WorkerOrder } from "~/queue/worker-order";

/** Least interval between stored progress, since each write is a transaction. */
const REPORT_INTERVAL_MS = 400;
/** Priority of background work: 0 is normal, 19 the lowest. */
const LATER = 10;

const { databaseFile } = workerData as { databaseFile: string };
const db = openDatabase(databaseFile);
const controller = new AbortController();
let givesBack = false;
parentPort!.on("message", (order: WorkerOrder) => {
  if (order === "cancel") controller.abort();
  else if (order === "give back") {
    givesBack = true;
    controller.abort();
  } else void carryOut(order.run);
});

async function endOf(jobId: string): Promise<JobEnd> {
  let reportedAt = 0;
  let reportedStep = "";
  const onProgress = (step: string, share: number) => {
    const now = Date.now();
    if (step === reportedStep && now - reportedAt < REPORT_INTERVAL_MS) return;
    reportedAt = now;
    reportedStep = step;
    try {
      reportProgress(db, jobId, step, share);
    } catch {
      // The work itself may well go on: what cannot be shown now can be shown next time.
    }
  };
  try {
    const result = await runJob(db, findJob(db, jobId)!, { onProgress, signal: controller.signal });
    return { state: "done", result };
  } catch (error) {
    if (error instanceof CancelledError) return { state: "cancelled" };
    return { state: "failed", error: failureMessage(error) };
  }
}

const isUrgent = (jobId: string): boolean => URGENT.some((kind) => kind === findJob(db, jobId)?.kind);

/** Lets work that somebody waits for go first. On Linux this affects this thread and what it starts, alone. */
function stepBack(jobId: string): void {
  if (process.platform === "linux" && !isUrgent(jobId)) setPriority(0, LATER);
}

async function carryOut(jobId: string): Promise<void> {
  stepBack(jobId);
  const end = await endOf(jobId);
  try {
    if (givesBack && end.state === "cancelled") giveBackJob(db, jobId);
    else finishJob(db, jobId, end);
  } catch {
    // The disk may be full. The server tries again until it is stored.
    if (!givesBack) parentPort!.postMessage({ unwritten: end } satisfies UnwrittenEnd);
  } finally {
    db.close();
    parentPort!.close();
  }
}
