/** Entry of a worker thread that writes the files of a version. */
import { parentPort, workerData } from "node:worker_threads";
import { Refusal } from "~/core/basics/refusal";
import { findFilm } from "~/db/films.server";
import { db } from "~/db/workplace.server";
import { type VersionFilesAnswer, type VersionFilesAsked, writtenHere } from "./write-version-files.server";

const { filmId, versionId, files } = workerData as VersionFilesAsked;

function answer(): VersionFilesAnswer {
  try {
    return writtenHere(findFilm(db(), filmId)!, versionId, files);
  } catch (error) {
    if (error instanceof Refusal) return { refused: error.message, status: error.status };
    throw error;
  }
}

parentPort!.postMessage(answer());
