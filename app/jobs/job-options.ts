import type { Db } from "~/db/database.server";
import type { FilmRow } from "~/db/films.server";
import type { JobRow } from "~/db/jobs.server";
import type { FilmFile } from "~/media/film-file";

/** What a job works on. */
export interface JobGround {
  db: Db;
  job: JobRow;
  row: FilmRow;
  film: FilmFile;
}

/** How it is monitored and cancelled. */
export interface JobOptions {
  /** Called with what is being done, and the share of the whole that is done. */
  onProgress: (step: string, share: number) => void;
  signal: AbortSignal;
}
