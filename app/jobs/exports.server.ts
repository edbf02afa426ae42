import { parse } from "node:path";
import { nanoid } from "nanoid";
import type { FilmRow } from "~/db/films.server";
import { insertJob, type JobRow, listJobs, secondsLeft } from "~/db/jobs.server";
import type { VersionRow } from "~/db/versions.server";
import type { FileFigures } from "~/media/verify.server";
import { wakeQueue } from "./queue.server";
import { RenderPayload } from "./payloads";
import { db } from "./workplace.server";

export interface FilmExport extends Pick<JobRow, "id" | "state" | "step" | "progress" | "error"> {
  versionId: string;
  fileName: string;
  secondsLeft: number | null;
  figures: FileFigures | null;
}

/** Renders of a film, the newest first. */
export const listExports = (filmId: string): FilmExport[] =>
  listJobs(db(), filmId)
    .filter((job) => job.kind === "render")
    .map((job) => ({
      ...RenderPayload.parse(JSON.parse(job.payload)),
      id: job.id,
      state: job.state,
      step: job.step,
      progress: job.progress,
      error: job.error,
      secondsLeft: secondsLeft(job),
      figures: job.result ? (JSON.parse(job.result) as FileFigures) : null,
    }))
    .reverse();

/** "Film 1080x1920.mp4", and with a number if there is one already. */
function freeName(base: string, taken: readonly string[]): string {
  for (let n = 1; ; n++) {
    const name = n === 1 ? `${base}.mp4` : `${base} (${n}).mp4`;
    if (!taken.includes(name)) return name;
  }
}

/** Queues the render of a version under a name made of the film's and the shape's. */
export function requestExport(film: FilmRow, version: VersionRow): void {
  const base = `${parse(film.name).name.replaceAll(/[/\\]/g, "-")} ${version.width}x${version.height}`;
  const fileName = freeName(
    base,
    listExports(film.id).map((item) => item.fileName),
  );
  insertJob(db(), { id: nanoid(10), filmId: film.id, kind: "render", payload: { versionId: version.id, fileName } });
  wakeQueue();
}
