import { mkdir } from "node:fs/promises";
import { join } from "node:path";
import { z } from "zod";
import { packFeatures, unpackFeatures } from "~/core/shots/feature-codec";
import { recut } from "~/core/shots/reshape";
import { frameShots } from "~/core/path/solve-version";
import { findTracks, insertChunk, listChunks, saveCandidates, saveTracks } from "~/db/analysis.server";
import type { Db } from "~/db/database.server";
import { findFilm } from "~/db/films.server";
import type { JobRow } from "~/db/jobs.server";
import { listShots, replaceShots } from "~/db/shots.server";
import { findVersion } from "~/db/versions.server";
import { joinRanges } from "~/core/time/rate";
import { makePoster, makeProxy } from "~/media/proxy.server";
import type { FilmFile } from "~/media/small-frames.server";
import { analyseFilm, type AnalysisStore } from "./analyse-film.server";
import { exportVersion } from "./export-version.server";
import { loadFramings } from "./framings.server";
import { exportsFolder, posterFile, proxyFile } from "./workplace.server";

export interface JobOptions {
  /** What is being done, and how much of the whole is done. */
  onProgress: (step: string, share: number) => void;
  signal: AbortSignal;
}

export const RenderPayload = z.object({ versionId: z.string(), fileName: z.string() });
async function proxy(film: FilmFile, filmId: string, { onProgress, signal }: JobOptions): Promise<void> {
  onProgress("Making the poster", 0);
  await makePoster(film.file, film.info, posterFile(filmId), signal);
  await makeProxy(film.file, film.info, proxyFile(filmId), {
    signal,
    onProgress: (share) => onProgress("Making a light copy", share),
  });
}

/** Keeps the steps of an analysis in the database, so that it goes on after an interruption. */
const databaseStore = (db: Db, filmId: string): AnalysisStore => ({
  loadChunks: () =>
    listChunks(db, filmId).map(({ range, features, detections }) => ({
      range,
      features: unpackFeatures(features),
      detections,
    })),
  saveChunk: ({ range, features, detections }) =>
    insertChunk(db, filmId, { range, features: packFeatures(features), detections }),
  loadTracks: (shot) => findTracks(db, filmId, shot),
  saveTracks: (shot, tracks) => saveTracks(db, filmId, shot, tracks),
});

async function analyse(
  db: Db,
  film: FilmFile,
  filmId: string,
  { onProgress, signal }: JobOptions,
): Promise<{ shots: number }> {
  const { candidates, transitions, shots } = await analyseFilm(film, {
    store: databaseStore(db, filmId),
    signal,
    onProgress: ({ step, share }) =>
      onProgress(step === "looking" ? "Looking for shots and people" : "Following subjects", share),
  });
  db.transaction(() => {
    saveCandidates(db, filmId, candidates);
    replaceShots(db, filmId, recut([], transitions, film.info.frames, filmId));
  })();
  return { shots: shots.length };
}

async function render(db: Db, film: FilmFile, job: JobRow, { onProgress, signal }: JobOptions) {
  const { versionId, fileName } = RenderPayload.parse(JSON.parse(job.payload));
  const version = findVersion(db, job.filmId, versionId);
  if (!version) throw new Error("the version is not there any more");
  const target = { width: version.width, height: version.height };
  onProgress("Laying the path", 0);
  const framings = loadFramings(db, job.filmId, versionId);
  const paths = frameShots(framings, film.info.picture, target, film.info.rate);
  const excluded = new Set(listShots(db, job.filmId).flatMap((shot) => (shot.excluded ? [shot.start] : [])));
  const kept = framings.flatMap(({ range }, i) =>
    excluded.has(range.start) ? [] : [{ range, windows: paths[i]!.windows }],
  );
  if (kept.length === 0) throw new Error("every shot is excluded; take one in again to render the film");
  const ranges = joinRanges(kept.map(({ range }) => range));
  const windows = kept.flatMap((shot) => shot.windows);
  await mkdir(exportsFolder(job.filmId), { recursive: true });
  return exportVersion({ film, target, ranges, windows }, join(exportsFolder(job.filmId), fileName), {
    signal,
    onProgress: ({ step, share }) => onProgress(step === "rendering" ? "Rendering" : "Checking the file", share),
  });
}

/** Carries out a job and returns what came of it. */
export async function runJob(db: Db, job: JobRow, options: JobOptions): Promise<unknown> {
  const row = findFilm(db, job.filmId);
  if (!row) throw new Error("the film is not there any more");
  const film: FilmFile = { file: row.file, name: row.name, info: row.info };
  switch (job.kind) {
    case "proxy":
      return proxy(film, job.filmId, options);
    case "analyse":
      return analyse(db, film, job.filmId, options);
    case "render":
      return render(db, film, job, options);
  }
}
