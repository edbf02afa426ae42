/** Entry of a worker thread: carries out one job and writes to the database how it goes and how it ended. */
import { parentPort, workerData } from "node:worker_threads";
import { openDatabase } from "~/db/database.server";
import { findJob, finishJob, reportProgress } from "~/db/jobs.server";
import { CancelledError } from "~/media/tool.server";
import { runJob } from "./run-job.server";
import type { WorkerOrder } from "./worker-order";

/** Progress is written no more often than this, since each write is a transaction. */
const REPORT_INTERVAL_MS = 400;

const { databaseFile } = workerData as { databaseFile: string };
const db = openDatabase(databaseFile);
const controller = new AbortController();
parentPort!.on("message", (order: WorkerOrder) => {
  if (order === "cancel") controller.abort();
  else void carryOut(order.run);
});

async function carryOut(jobId: string): Promise<void> {
  let reportedAt = 0;
  let reportedStep = "";
  const onProgress = (step: string, share: number) => {
    const now = Date.now();
    if (step === reportedStep && now - reportedAt < REPORT_INTERVAL_MS) return;
    reportedAt = now;
    reportedStep = step;
    reportProgress(db, jobId, step, share);
  };
  try {
    const result = await runJob(db, findJob(db, jobId)!, { onProgress, signal: controller.signal });
    finishJob(db, jobId, { state: "done", result });
  } catch (error) {
    if (error instanceof CancelledError) finishJob(db, jobId, { state: "cancelled" });
    else finishJob(db, jobId, { state: "failed", error: error instanceof Error ? error.message : String(error) });
  } finally {
    db.close();
    parentPort!.close();
  }
}
