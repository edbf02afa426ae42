import { existsSync } from "node:fs";
import { join } from "node:path";
import { z } from "zod";
import { packFeatures, unpackFeatures } from "~/core/shots/feature-codec";
import { shotId } from "~/core/shots/reshape";
import { freshShot } from "~/core/shots/shot";
import { frameShots } from "~/core/path/solve-version";
import {
  analysedTo,
  dropChunks,
  dropFeatures,
  findTransitions,
  insertChunk,
  listChunks,
  saveTracks,
  saveTransitions,
  saveUndecoded,
} from "~/db/analysis.server";
import { type Db, inTransaction } from "~/db/database.server";
import { findFilm } from "~/db/films.server";
import type { JobRow } from "~/db/jobs.server";
import { listPeople, savePeople } from "~/db/people.server";
import { listShots, saveShot } from "~/db/shots.server";
import { findVersion } from "~/db/versions.server";
import { joinRanges } from "~/core/time/rate";
import { requireSpace } from "~/disk/disk-space.server";
import { estimatedBytes } from "~/media/estimated-size";
import { makePoster } from "~/media/poster.server";
import { makeProxy, proxyPicture } from "~/media/proxy.server";
import type { FilmFile } from "~/media/film-file";
import { analyseFilm, type AnalysisStore } from "../pipelines/analyse-film.server";
import { exportVersion } from "../pipelines/export-version.server";
import { FollowPayload, followThing } from "./marks.server";
import { loadFramings } from "./framings.server";
import { DATA_FOLDER, dataFolder, exportsFolder, posterFile, proxyFolder, sourceFile } from "./workplace.server";

export interface JobOptions {
  /** What is being done, and how much of the whole is done. */
  onProgress: (step: string, share: number) => void;
  signal: AbortSignal;
}

export const RenderPayload = z.object({ versionId: z.string(), fileName: z.string() });

/** Makes sure that a file will fit, before it is begun. */
function requireRoom(what: string, ...estimated: Parameters<typeof estimatedBytes>): void {
  requireSpace(dataFolder(), DATA_FOLDER, estimatedBytes(...estimated), what);
}

async function proxy(film: FilmFile, filmId: string, { onProgress, signal }: JobOptions): Promise<void> {
  const { frames, rate } = film.info;
  requireRoom(`the light copy of ${film.name}`, "proxy", proxyPicture(film.info), frames, rate);
  if (!existsSync(posterFile(filmId))) {
    onProgress("Making the poster", 0);
    await makePoster(film, posterFile(filmId), signal);
  }
  await makeProxy(film, proxyFolder(filmId), {
    signal,
    onProgress: (share) => onProgress("Making a light copy", share),
  });
}

/** Keeps the steps of an analysis in the database, so that it goes on after an interruption and can be worked with. */
const databaseStore = (db: Db, filmId: string): AnalysisStore => ({
  load: () => {
    const transitions = findTransitions(db, filmId);
    if (!transitions) return null;
    const chunks = listChunks(db, filmId).map((chunk) => ({
      ...chunk,
      features: unpackFeatures(chunk.features),
      // They are kept by themselves.
      undecoded: [],
    }));
    return { transitions, people: listPeople(db, filmId), finishedTo: analysedTo(db, filmId), chunks };
  },
  saveChunk: (chunk, transitions, featuresFrom) =>
    inTransaction(db, () => {
      insertChunk(db, filmId, { ...chunk, features: packFeatures(chunk.features) });
      saveUndecoded(db, filmId, chunk.undecoded);
      saveTransitions(db, filmId, transitions);
      dropFeatures(db, filmId, featuresFrom);
    }),
  saveTransitions: (transitions) => saveTransitions(db, filmId, transitions),
  saveShots: (shots, people, neededFrom) =>
    inTransaction(db, () => {
      for (const { range, begins, tracks, camera, active } of shots) {
        saveTracks(db, filmId, range, tracks, camera);
        saveShot(db, filmId, freshShot(shotId(filmId, range.start, new Set()), range, begins, active));
      }
      savePeople(db, filmId, people);
      dropChunks(db, filmId, neededFrom);
    }),
});

async function analyse(
  db: Db,
  film: FilmFile,
  filmId: string,
  { onProgress, signal }: JobOptions,
): Promise<{ shots: number }> {
  await analyseFilm(film, {
    store: databaseStore(db, filmId),
    signal,
    onProgress: (share) => onProgress("Looking for shots and people", share),
  });
  dropChunks(db, filmId, film.info.frames);
  return { shots: listShots(db, filmId).length };
}

/** Of a render, beside the check of what came of it. */
const RENDERING_SHARE = 0.92;

async function render(db: Db, film: FilmFile, job: JobRow, { onProgress, signal }: JobOptions) {
  const { versionId, fileName } = RenderPayload.parse(JSON.parse(job.payload));
  const version = findVersion(db, job.filmId, versionId);
  if (!version) throw new Error("the version is not there any more");
  const target = { width: version.width, height: version.height };
  onProgress("Laying the path", 0);
  const framings = loadFramings(db, job.filmId, versionId);
  const paths = frameShots(framings, film.info.picture, target, film.info.rate);
  const kept = framings.flatMap(({ range, excluded }, i) => (excluded ? [] : [{ range, windows: paths[i]!.windows }]));
  if (kept.length === 0) throw new Error("every shot is excluded; take one in again to render the film");
  const ranges = joinRanges(kept.map(({ range }) => range));
  const windows = kept.flatMap((shot) => shot.windows);
  requireRoom(fileName, "render", target, windows.length, film.info.rate);
  return exportVersion({ film, target, ranges, windows }, join(exportsFolder(job.filmId), fileName), {
    signal,
    onProgress: ({ step, share }) =>
      step === "rendering"
        ? onProgress("Rendering", RENDERING_SHARE * share)
        : onProgress("Checking the file", RENDERING_SHARE + (1 - RENDERING_SHARE) * share),
  });
}

/** Carries out a job and returns what came of it. */
export async function runJob(db: Db, job: JobRow, options: JobOptions): Promise<unknown> {
  const row = findFilm(db, job.filmId);
  if (!row) throw new Error("the film is not there any more");
  const film: FilmFile = { file: sourceFile(row), name: row.name, info: row.info };
  switch (job.kind) {
    case "proxy":
      return proxy(film, job.filmId, options);
    case "analyse":
      return analyse(db, film, job.filmId, options);
    case "follow": {
      const { basis } = FollowPayload.parse(JSON.parse(job.payload));
      const { onProgress, signal } = options;
      return followThing(db, film, job.filmId, basis, {
        signal,
        onProgress: (share) => onProgress("Following the mark", share),
      });
    }
    case "render":
      return render(db, film, job, options);
  }
}
