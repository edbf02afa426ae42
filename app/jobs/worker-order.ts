/** What a worker thread is told: the job to carry out, and later perhaps to stop. */
export type WorkerOrder = { run: string } | "cancel";
