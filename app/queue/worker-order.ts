import type { JobEnd } from "~/db/jobs.server";

/** Orders to a worker thread: run a job, and later cancel it, or stop and leave it for the next start. */
export type WorkerOrder = { run: string } | "cancel" | "give back";

/** Message of a worker thread whose job has ended but which could not store that. */
export interface UnwrittenEnd {
  unwritten: JobEnd;
}
