import { once } from "node:events";
import { Worker } from "node:worker_threads";
import { Refusal } from "~/core/basics/refusal";
import type { FilmRow } from "~/db/films.server";
import { builtFile } from "~/media/worker-thread.server";
import { type VersionFile, versionFiles } from "./version-files.server";

/** The requested files of a version. */
export interface WrittenVersion {
  /** Start of the files' names. */
  base: string;
  /** Null where there is nothing to write. */
  texts: { file: VersionFile; text: string | null }[];
}
export interface VersionFilesAsked {
  filmId: string;
  versionId: string;
  files: readonly VersionFile[];
}
export type VersionFilesAnswer = WrittenVersion | { refused: string; status: Refusal["status"] };

/** Lays the paths of a version and writes files of it. */
export function writtenHere(film: FilmRow, versionId: string, files: readonly VersionFile[]): WrittenVersion {
  const { base, write } = versionFiles(film, versionId);
  return { base, texts: files.map((file) => ({ file, text: write(file) })) };
}

/**
 * The same in a thread of its own: for a long film it takes minutes, during which the server has to answer others.
 * @throws Refusal if the film has no such version
 */
export async function writeVersionFiles(
  film: FilmRow,
  versionId: string,
  files: readonly VersionFile[],
): Promise<WrittenVersion> {
  // Without a build, in development and unit tests, it runs here.
  const entry = builtFile("version-files.js");
  if (entry === null) return writtenHere(film, versionId, files);
  const worker = new Worker(entry, { workerData: { filmId: film.id, versionId, files } satisfies VersionFilesAsked });
  try {
    const [answer] = (await once(worker, "message")) as [VersionFilesAnswer];
    if ("refused" in answer) throw new Refusal(answer.refused, answer.status);
    return answer;
  } finally {
    void worker.terminate();
  }
}
