import { parse } from "node:path";
import { nanoid } from "nanoid";
import type { FilmRow } from "~/db/films.server";
import { insertJob, listJobs, secondsLeft } from "~/db/jobs.server";
import { type ExportView, FileFigures } from "~/core/film-status";
import type { Version } from "~/core/edits/film-state";
import { USUAL_FORMAT } from "~/core/formats/output-formats";
import { listVersions } from "~/db/versions.server";
import { wakeQueue } from "./queue.server";
import { RenderPayload } from "./payloads";
import { db } from "./workplace.server";

/** Renders of a film, the newest first. */
export const listExports = (filmId: string): ExportView[] =>
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
      figures: job.result ? FileFigures.parse(JSON.parse(job.result)) : null,
    }))
    .reverse();

/** "Film 1080x1920.mp4", and with a number if there is one already. */
function freeName(base: string, taken: readonly string[]): string {
  for (let n = 1; ; n++) {
    const name = n === 1 ? `${base}${USUAL_FORMAT.extension}` : `${base} (${n})${USUAL_FORMAT.extension}`;
    if (!taken.includes(name)) return name;
  }
}

/** "Film 1080x1920": also with the version's name where the film has several of that size. */
function baseName(film: FilmRow, version: Version): string {
  const { name, width, height } = version;
  const isAlone = listVersions(db(), film.id).every(
    (other) => other.id === version.id || other.width !== width || other.height !== height,
  );
  const parts = [parse(film.name).name, `${width}x${height}`, ...(isAlone ? [] : [name])];
  return parts.join(" ").replaceAll(/[/\\]/g, "-");
}

/** Queues the render of a version under a name made of the film's and the shape's. */
export function requestExport(film: FilmRow, version: Version): void {
  const base = baseName(film, version);
  const fileName = freeName(
    base,
    listExports(film.id).map((item) => item.fileName),
  );
  insertJob(db(), { id: nanoid(10), filmId: film.id, kind: "render", payload: { versionId: version.id, fileName } });
  wakeQueue();
}
