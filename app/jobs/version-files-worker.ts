/** Entry of a worker thread that writes the files of a version. */
import { parentPort, workerData } from "node:worker_threads";
import { Refusal } from "~/core/refusal";
import { openDatabase } from "~/db/database.server";
import { findFilm } from "~/db/films.server";
import { useDatabase } from "./workplace.server";
import { type VersionFilesAnswer, type VersionFilesAsked, writtenHere } from "./write-version-files.server";

const { databaseFile, filmId, versionId, files } = workerData as VersionFilesAsked;

function answer(): VersionFilesAnswer {
  try {
    return writtenHere(findFilm(openedDatabase(), filmId)!, versionId, files);
  } catch (error) {
    if (error instanceof Refusal) return { refused: error.message, status: error.status };
    throw error;
  }
}

function openedDatabase() {
  const db = openDatabase(databaseFile);
  useDatabase(db);
  return db;
}

parentPort!.postMessage(answer());
