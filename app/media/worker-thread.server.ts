import "./no-telemetry.server";
import { Worker } from "node:worker_threads";
import { projectPath } from "./project-path.server";

/**
 * Starts a worker thread.
 *
 * @param built the file that it starts with, in the folder that this code was built to
 * @param source what loads its TypeScript as it is, where nothing was built
 */
export function startWorker(built: string, source: string, workerData: unknown): Worker {
  const folder: unknown = import.meta.env?.BUILD_FOLDER;
  return new Worker(projectPath(typeof folder === "string" ? `${folder}/${built}` : source), { workerData });
}
