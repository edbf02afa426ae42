import type { JobEnd } from "~/db/jobs.server";

/**
 * What a worker thread is told: the job to carry out, and later perhaps to cancel it, or to stop and leave it to the
 * next start.
 */
export type WorkerOrder = { run: string } | "cancel" | "give back";

/** What a worker thread says when its job has ended and it could not write that down itself. */
export interface UnwrittenEnd {
  unwritten: JobEnd;
}
