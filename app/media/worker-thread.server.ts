import "./no-telemetry.server";
import { Worker } from "node:worker_threads";
import { projectPath } from "~/disk/project-path.server";

/** A file of the build that this code is in; null where nothing is built. */
export function builtFile(name: string): string | null {
  const folder: unknown = import.meta.env?.BUILD_FOLDER;
  return typeof folder === "string" ? projectPath(`${folder}/${name}`) : null;
}

/**
 * Starts a worker thread.
 *
 * @param built the file that it starts with, in the folder that this code was built to
 * @param source what loads its TypeScript as it is, where nothing was built
 */
export const startWorker = (built: string, source: string, workerData: unknown): Worker =>
  new Worker(builtFile(built) ?? projectPath(source), { workerData });
