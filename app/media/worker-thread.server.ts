import "./no-telemetry.server";
import { Worker } from "node:worker_threads";
import { projectPath } from "~/disk/project-path.server";

/** A file of the build that contains this code; null without a build. */
export function builtFile(name: string): string | null {
  const folder: unknown = import.meta.env?.BUILD_FOLDER;
  return typeof folder === "string" ? projectPath(`${folder}/${name}`) : null;
}

/**
 * Starts a worker thread.
 * @param built its entry, in the folder of the built code
 * @param source loads its TypeScript directly where there is no build
 */
export const startWorker = (built: string, source: string, workerData: unknown): Worker =>
  new Worker(builtFile(built) ?? projectPath(source), { workerData });
