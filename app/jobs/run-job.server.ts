import { existsSync } from "node:fs";
import { join } from "node:path";
import { assertNever } from "~/core/assert-never";
import { heardIn } from "~/core/composition/heard";
import { withCaptions } from "~/core/captions/captioned";
import { shownIn, withLayers } from "~/core/composition/shown";
import { frameShots } from "~/core/path/version-paths";
import { clipBorders } from "~/core/clips/clip";
import { listClips } from "~/db/clips.server";
import { dropChunks } from "~/db/analysis.server";
import type { Db } from "~/db/database.server";
import { type FilmRow, findFilm } from "~/db/films.server";
import type { JobRow } from "~/db/jobs.server";
import { countShots, listShots } from "~/db/shots.server";
import { framesIn, framesPerSecond } from "~/core/time/rate";
import { joinRanges } from "~/core/time/ranges";
import { requireSpace } from "~/disk/disk-space.server";
import { estimatedBytes } from "~/media/estimated-size";
import { makePoster } from "~/media/poster.server";
import { makeProxy, proxyPicture } from "~/media/proxy.server";
import type { FilmFile } from "~/media/film-file";
import { analyseInPasses } from "../pipelines/analyse-in-passes.server";
import type { z } from "zod";
import { matchFilms } from "../pipelines/match-films.server";
import { withTrack, writeSidecars } from "../pipelines/caption-files.server";
import { exportVersion } from "../pipelines/export-version.server";
import { conformClips } from "./conform-clips.server";
import { databaseStore } from "./analysis-store.server";
import { followThing } from "./marks.server";
import { FollowPayload, MatchPayload, type MatchResult, RenderPayload } from "./payloads";
import { libraryFiles } from "./own-files.server";
import { loadFramings } from "./framings.server";
import {
  DATA_FOLDER,
  dataFolder,
  exportsFolder,
  posterFile,
  proxyFolder,
  requireSource,
  sourceFile,
} from "./workplace.server";

export interface JobOptions {
  /** What is being done, and how much of the whole is done. */
  onProgress: (step: string, share: number) => void;
  signal: AbortSignal;
}

/** Makes sure that a file will fit, before it is begun. */
function requireRoom(what: string, ...estimated: Parameters<typeof estimatedBytes>): void {
  requireSpace(dataFolder(), DATA_FOLDER, estimatedBytes(...estimated), what);
}

async function proxy(film: FilmFile, filmId: string, { onProgress, signal }: JobOptions): Promise<void> {
  const { frames, rate } = film.info;
  requireRoom(`the proxy of ${film.name}`, "proxy", proxyPicture(film.info), frames, rate);
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

/** Of a render, beside the check of what came of it. */
const RENDERING_SHARE = 0.92;

async function render(db: Db, film: FilmFile, row: FilmRow, job: JobRow, { onProgress, signal }: JobOptions) {
  const { versionId, fileName } = RenderPayload.parse(JSON.parse(job.payload));
  onProgress("Laying the path", 0);
  const { version, framings, captions } = loadFramings(db, row, versionId);
  const target = { width: version.width, height: version.height };
  const ranges = joinRanges(framings.flatMap(({ kept }) => kept));
  if (ranges.length === 0) throw new Error(`nothing of the film is left in “${version.name}”; bring back a part of it`);
  requireRoom(fileName, "render", target, framesIn(ranges), film.info.rate);
  const paths = frameShots(framings, film.info.picture, target, film.info.rate);
  const shots = framings.map(({ range }, i) => ({ range, ...paths[i]! }));
  const fps = framesPerSecond(film.info.rate);
  const bare = shownIn(shots, target, fps);
  const layers = withCaptions({
    layers: version.layers,
    ...{ captions, settings: version.captions, size: target, fps, shown: bare },
    safeArea: version.safeArea,
    shots: framings.map(({ range, tracks }) => ({ ...range, tracks })),
  });
  const shown = withLayers(bare, { ...version, layers, size: target, kept: ranges, fps });
  const own = libraryFiles(version);
  const heard = heardIn(shots, ranges, fps);
  const file = join(exportsFolder(job.filmId), fileName);
  const exported = (track?: string) =>
    exportVersion({ film, target, ranges, shown, own, captions: track, heard }, file, {
      signal,
      onProgress: ({ step, share }) =>
        step === "rendering"
          ? onProgress("Rendering", RENDERING_SHARE * share)
          : onProgress("Checking the file", RENDERING_SHARE + (1 - RENDERING_SHARE) * share),
    });
  const said = { captions, kept: ranges, rate: film.info.rate };
  const figures = await (version.captions.track ? withTrack(said, exported) : exported());
  return { ...figures, sidecars: version.captions.sidecar ? await writeSidecars(file, said) : [] };
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
      return render(db, film, row, job, options);
    default:
      return assertNever(job.kind);
  }
}
