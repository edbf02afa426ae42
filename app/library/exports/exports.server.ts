/** Exports: queued, running and finished. */
import { existsSync } from "node:fs";
import { rm } from "node:fs/promises";
import { join } from "node:path";
import type { ExportView } from "~/core/film/film-status";
import type { Version } from "~/core/version/film-state";
import { keptRanges } from "~/core/version/trim";
import { freeName, nameBy, namePartsOf, USUAL_PATTERN } from "~/core/formats/file-names";
import { outputFormat } from "~/core/formats/output-formats";
import { outputRate, USUAL_OUTPUT } from "~/core/formats/output-settings";
import { Refusal } from "~/core/basics/refusal";
import { framesIn, framesPerSecond, frameToSeconds } from "~/core/time/rate";
import { liesWithin } from "~/core/time/ranges";
import { listAnalysed } from "~/db/analysis.server";
import { listClips } from "~/db/clips.server";
import { loadState } from "~/db/film-state.server";
import { type FilmRow, findFilm } from "~/db/films.server";
import { deleteJob, insertJob, type JobRow, listJobs, listRenders, secondsLeft } from "~/db/jobs.server";
import { listShots } from "~/db/shots.server";
import { readableOrNull } from "~/db/readable";
import { listVersions } from "~/db/versions.server";
import { exportsTexts } from "~/texts/exports";
import { exportFolder } from "./export-file.server";
import { exportPrint } from "./export-state.server";
import { requireOut } from "../folders/out-folders.server";
import { RENDERING_SHARE, renderIn } from "./render-work";
import type { RenderAsked } from "~/db/job-work";
import { wakeQueue } from "~/queue/queue.server";
import { db } from "~/db/workplace.server";
import { deleteWritten } from "./written-files.server";
import { libraryErrors } from "~/texts/library-errors";

const errors = libraryErrors.exports;

const t = exportsTexts.stored;

// Digests of a film's versions follow from its state, and are requested several times per second.
const prints = new Map<string, { basis: string; byVersion: ReadonlyMap<string, string> }>();

/** Present digests of a film's versions; null where the film cannot be read. */
function printsOf(film: FilmRow): ReadonlyMap<string, string> | null {
  const now = `${film.revision} ${film.findings}`;
  const known = prints.get(film.id);
  if (known?.basis === now) return known.byVersion;
  const state = readableOrNull(() => loadState(db(), film));
  if (!state) return null;
  const byVersion = new Map(state.versions.map((version) => [version.id, exportPrint(state, version)]));
  prints.set(film.id, { basis: now, byVersion });
  return byVersion;
}

/** Frames per second of a running render. */
function speedOf({ state, startedAt, progress, begunAtProgress }: JobRow, frames: number, now = Date.now()) {
  const share = progress - (begunAtProgress ?? progress);
  if (state !== "running" || !startedAt || share < 0.01 || progress >= RENDERING_SHARE) return null;
  return ((share / RENDERING_SHARE) * frames) / ((now - startedAt) / 1000);
}

/** View of an export that cannot be read: it can only be removed. */
const brokenView = ({ id, filmId }: JobRow): ExportView => ({
  id,
  filmId,
  versionId: "",
  fileName: t.unreadableExport,
  folder: null,
  format: USUAL_OUTPUT.format,
  state: "failed",
  step: "",
  progress: 0,
  error: t.removeUnreadableExport,
  isPaused: false,
  isUnreadable: true,
  secondsLeft: null,
  speed: null,
  finishedAt: null,
  figures: null,
  isChanged: false,
  made: 0,
  parts: 0,
});

function viewOf(job: JobRow, film: FilmRow): ExportView {
  const render = renderIn(job);
  if (!render) return brokenView(job);
  const { result, fileName } = render;
  const { versionId, folder, output, frames } = render.asked;
  const { id, filmId, state, step, progress, error, paused } = job;
  return {
    id,
    filmId,
    versionId,
    fileName,
    folder,
    format: output.format,
    state,
    step,
    progress,
    error,
    isPaused: paused === 1,
    isUnreadable: false,
    secondsLeft: secondsLeft(job),
    speed: speedOf(job, frames),
    finishedAt: job.state === "done" ? job.finishedAt : null,
    figures: result,
    isChanged: result !== null && result.print !== "" && printsOf(film)?.get(versionId) !== result.print,
    made: result?.made ?? 0,
    parts: result?.parts ?? 0,
  };
}

/** Renders of a film, newest first. */
export function listExports(film: FilmRow): ExportView[] {
  return listJobs(db(), film.id)
    .filter((job) => job.kind === "render")
    .map((job) => viewOf(job, film))
    .reverse();
}

/** An export with its film. */
export type LibraryExport = ExportView & { film: string; version: string | null };

/** Renders of all films: first the queue, in order, then finished ones, newest first. */
export function listAllExports(): { queue: LibraryExport[]; files: LibraryExport[] } {
  const films = new Map<string, FilmRow | null>();
  const all = listRenders(db()).flatMap((job): LibraryExport[] => {
    if (!films.has(job.filmId))
      films.set(
        job.filmId,
        readableOrNull(() => findFilm(db(), job.filmId)),
      );
    const film = films.get(job.filmId);
    if (!film || film.deletedAt !== null) return [];
    const view = viewOf(job, film);
    const version = loadVersionNames(film).get(view.versionId) ?? null;
    return [{ ...view, film: film.name, version }];
  });
  const isOpen = ({ state }: ExportView) => state === "queued" || state === "running";
  return {
    queue: all.filter(isOpen).sort((a, b) => Number(b.state === "running") - Number(a.state === "running")),
    files: all.filter((each) => !isOpen(each)).sort((a, b) => (b.finishedAt ?? 0) - (a.finishedAt ?? 0)),
  };
}

const loadVersionNames = (film: FilmRow): Map<string, string> =>
  new Map((readableOrNull(() => listVersions(db(), film.id)) ?? []).map(({ id, name }) => [id, name]));

/** A request for exports of several versions. */
export interface ExportRequest {
  /** Pattern of the files' names. */
  pattern?: string;
  /** Whether files of the same name are replaced; otherwise the new ones get a number. */
  replaces?: boolean;
}

/** Whether everything that a version shows has been analysed. */
function isReady(film: FilmRow, version: Version): boolean {
  const leftOut = { shots: listShots(db(), film.id), clips: listClips(db(), film.id) };
  return liesWithin(keptRanges(version.trim, film.info.frames, leftOut), listAnalysed(db(), film.id));
}

/**
 * Queues renders of versions, each with its own settings.
 * @returns the ids of the jobs
 * @throws Refusal, before anything is queued, if one of them cannot be rendered
 */
export function requestExports(
  film: FilmRow,
  versions: readonly Version[],
  { pattern = USUAL_PATTERN, replaces = false }: ExportRequest = {},
): string[] {
  // Where several films go into one folder, their names must differ.
  const names = new Set(
    listRenders(db())
      .filter(({ state }) => state !== "cancelled")
      .flatMap((job) => {
        const render = renderIn(job);
        if (!render || (render.asked.folder === null && job.filmId !== film.id)) return [];
        return `${render.asked.folder ?? ""}/${render.fileName}`;
      }),
  );
  const shots = listShots(db(), film.id);
  const clips = listClips(db(), film.id);
  const renders = versions.map((version, i): RenderAsked => {
    if (!isReady(film, version)) {
      throw new Refusal(errors.notAnalysedYet(version.name), 409);
    }
    const { output } = version;
    const format = outputFormat(output.format);
    const folder = requireOut(film, output.folder);
    const kept = framesIn(keptRanges(version.trim, film.info.frames, { shots, clips }));
    const seconds = frameToSeconds(kept, film.info.rate);
    if (format.mostSeconds !== null && seconds > format.mostSeconds) {
      throw new Refusal(errors.tooLongForFormat(version.name, seconds, format.name, format.mostSeconds), 409);
    }
    const { least, most } = format.side;
    if (Math.min(version.width, version.height) < least || Math.max(version.width, version.height) > most) {
      throw new Refusal(errors.wrongSide(version.name, least, most, format.name), 409);
    }
    const { rate } = outputRate(output, film.info.rate);
    const base = nameBy(pattern, namePartsOf(film.name, version, i + 1));
    const isTaken = (name: string) =>
      names.has(`${folder ?? ""}/${name}`) || (folder !== null && !replaces && existsSync(join(folder, name)));
    const fileName = freeName(base, format.extension, isTaken);
    names.add(`${folder ?? ""}/${fileName}`);
    const frames = Math.round((kept * framesPerSecond(rate)) / framesPerSecond(film.info.rate));
    return { versionId: version.id, fileName, folder, output, frames, replaces };
  });
  const ids = renders.map((asked) => insertJob(db(), { filmId: film.id, kind: "render", asked }));
  wakeQueue();
  return ids;
}

/** Deletes the files of a finished export, and the export itself. */
export async function deleteExport(job: JobRow): Promise<void> {
  const render = renderIn(job);
  // A file of the name of an unfinished export does not exist, or belongs to somebody else.
  if (render?.result && job.state === "done") {
    const folder = exportFolder(job, render.asked);
    const { written, sidecars } = render.result;
    if (written.length > 0) await deleteWritten(folder, written);
    // Of what an older Glad Pan has written only the names are known; in the library's own folder nobody else has them.
    else if (render.asked.folder === null) {
      for (const name of [render.fileName, ...sidecars]) await rm(join(folder, name), { force: true });
    }
  }
  deleteJob(db(), job.id);
}

/** A file of a finished export, or one of its captions, by name; null where there is none. */
export function findExportFile(film: FilmRow, name: string): { file: string; mediaType: string } | null {
  for (const job of listJobs(db(), film.id).toReversed()) {
    const render = job.state === "done" ? renderIn(job) : null;
    if (!render?.result) continue;
    const { asked, result, fileName } = render;
    const file = join(exportFolder(job, asked), name);
    if (fileName === name) return { file, mediaType: outputFormat(asked.output.format).mediaType };
    if (result.sidecars.includes(name)) {
      return { file, mediaType: name.endsWith(".vtt") ? "text/vtt" : "application/x-subrip" };
    }
  }
  return null;
}
