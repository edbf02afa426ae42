import type { FilmStatus, JobView } from "~/core/film/film-status";
import type { FilmRow } from "~/db/films.server";
import { type JobRow, listJobs, secondsLeft } from "~/db/jobs.server";
import { listExports } from "../exports/exports.server";
import { db } from "~/db/workplace.server";

/** A job as pages show it. */
export const jobView = (job: JobRow): JobView => ({
  id: job.id,
  kind: job.kind,
  state: job.state,
  step: job.step,
  progress: job.progress,
  error: job.error,
  secondsLeft: secondsLeft(job),
});

/** What is being done to a film, and whether there is more to be loaded. */
export const filmStatus = (film: FilmRow): FilmStatus => ({
  revision: film.revision,
  findings: film.findings,
  jobs: listJobs(db(), film.id)
    .filter(({ kind, state }) => kind !== "render" && state !== "done")
    .map(jobView),
  exports: listExports(film),
});
