import type { Db } from "~/db/database.server";
import type { FilmRow } from "~/db/films.server";
import type { JobRow } from "~/db/jobs.server";
import type { FilmFile } from "~/media/film-file";

/** What a job is carried out on. */
export interface JobGround {
  db: Db;
  job: JobRow;
  row: FilmRow;
  film: FilmFile;
}

/** How it is watched and ended. */
export interface JobOptions {
  /** What is being done, and how much of the whole is done. */
  onProgress: (step: string, share: number) => void;
  signal: AbortSignal;
}
