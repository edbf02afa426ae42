import { existsSync } from "node:fs";
import { assertNever } from "~/core/assert-never";
import { clipBorders } from "~/core/clips/clip";
import { listClips } from "~/db/clips.server";
import { dropChunks } from "~/db/analysis.server";
import type { Db } from "~/db/database.server";
import { findFilm } from "~/db/films.server";
import type { JobRow } from "~/db/jobs.server";
import { countShots, listShots } from "~/db/shots.server";
import { requireSpace } from "~/disk/disk-space.server";
import { estimatedBytes } from "~/media/estimated-size";
import { makePoster } from "~/media/poster.server";
import { makeProxy, proxyPicture } from "~/media/proxy.server";
import type { FilmFile } from "~/media/film-file";
import { analyseInPasses } from "../pipelines/analyse-in-passes.server";
import type { z } from "zod";
import { matchFilms } from "../pipelines/match-films.server";
import { conformClips } from "./conform-clips.server";
import { databaseStore } from "./analysis-store.server";
import { followThing } from "./marks.server";
import { FollowPayload, MatchPayload, type MatchResult } from "./payloads";
import { renderVersion } from "./render-version.server";
import { DATA_FOLDER, dataFolder, posterFile, proxyFolder, requireSource, sourceFile } from "./workplace.server";

export interface JobOptions {
  /** What is being done, and how much of the whole is done. */
  onProgress: (step: string, share: number) => void;
  signal: AbortSignal;
}

async function proxy(film: FilmFile, filmId: string, { onProgress, signal }: JobOptions): Promise<void> {
  const { frames, rate } = film.info;
  const bytes = estimatedBytes("proxy", proxyPicture(film.info), frames, rate);
  requireSpace(dataFolder(), DATA_FOLDER, bytes, `the proxy of ${film.name}`);
  if (!existsSync(posterFile(filmId))) {
    onProgress("Making the poster", 0);
    await makePoster(film, posterFile(filmId), signal);
  }
  await makeProxy(film, proxyFolder(filmId), {
    signal,
    onProgress: (share) => onProgress("Making a proxy", share),
  });
}

async function analyse(
  db: Db,
  film: FilmFile,
  filmId: string,
  { onProgress, signal }: JobOptions,
): Promise<{ shots: number }> {
  await analyseInPasses(film, {
    store: databaseStore(db, filmId),
    borders: clipBorders(listClips(db, filmId)),
    signal,
    onProgress: (share) => onProgress("Looking for shots and people", share),
  });
  dropChunks(db, filmId, film.info.frames);
  return { shots: countShots(db, filmId) };
}

/** Carries out a job and returns what came of it. */
export async function runJob(db: Db, job: JobRow, options: JobOptions): Promise<unknown> {
  const row = findFilm(db, job.filmId);
  if (!row) throw new Error("the film no longer exists");
  // A comparison can do with the proxy, and what clips are joined to is not there yet.
  if (job.kind !== "match" && job.kind !== "join") requireSource(row);
  const film: FilmFile = { file: sourceFile(row), name: row.name, info: row.info };
  switch (job.kind) {
    case "join": {
      const { onProgress, signal } = options;
      return conformClips(db, row, { signal, onProgress: (share) => onProgress("Preparing the clips", share) });
    }
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
    case "match": {
      const { file, name, info } = MatchPayload.parse(JSON.parse(job.payload));
      const shots = listShots(db, job.filmId);
      const other = { file: sourceFile({ file }), name, info };
      const matches = await matchFilms(film, other, shots, { ...options, lightCopy: proxyFolder(job.filmId) });
      return { matches } satisfies z.infer<typeof MatchResult>;
    }
    case "render":
      return renderVersion(db, film, row, job, options);
    default:
      return assertNever(job.kind);
  }
}
