import { join } from "node:path";
import { toRender } from "~/core/version/lay";
import { framesIn } from "~/core/time/rate";
import type { Db } from "~/db/database.server";
import type { FilmRow } from "~/db/films.server";
import type { JobRow } from "~/db/jobs.server";
import { requireSpace } from "~/disk/disk-space.server";
import { estimatedBytes } from "~/media/estimated-size";
import type { FilmFile } from "~/media/film-file";
import { identityOf } from "~/media/film-identity.server";
import { withTrack, writeSidecars } from "../pipelines/caption-files.server";
import { exportVersion } from "../pipelines/export-version.server";
import { exportFolder } from "./export-file.server";
import { exportPrint } from "./export-state.server";
import { layVersion } from "./framings.server";
import { requireOut } from "./out-folders.server";
import { libraryFiles } from "./own-files.server";
import { RENDERING_SHARE, RenderPayload, type RenderResult } from "./payloads";
import type { JobOptions } from "./run-job.server";
import { DATA_FOLDER, dataFolder, partsFolder } from "./workplace.server";
import { noteWritten } from "./written-files.server";

/** Carries out a render job: the version as it is now. */
export async function renderVersion(
  db: Db,
  film: FilmFile,
  row: FilmRow,
  job: JobRow,
  { onProgress, signal }: JobOptions,
): Promise<RenderResult> {
  const payload = RenderPayload.parse(JSON.parse(job.payload));
  const { versionId, fileName, output } = payload;
  onProgress("Laying the path", 0);
  const { state, version, laid } = layVersion(db, row, versionId);
  const { captions } = state;
  const { target, ranges } = laid;
  if (ranges.length === 0) throw new Error(`nothing of the film is left in “${version.name}”; bring back a part of it`);
  // What was allowed when it was asked for may not be any more.
  if (payload.folder !== null) requireOut(row, output.folder);
  const bytes = estimatedBytes("render", target, framesIn(ranges), film.info.rate);
  requireSpace(payload.folder ?? dataFolder(), payload.folder ?? DATA_FOLDER, bytes, fileName);
  const folder = exportFolder(job, payload);
  const plan = { ...film, ...toRender(laid, version, captions), output, own: libraryFiles(version) };
  const exported = (track?: string) =>
    exportVersion(track === undefined ? plan : { ...plan, captions: track }, join(folder, fileName), {
      ...{ signal, limitSeconds: version.limitSeconds, replaces: payload.replaces },
      parts: { folder: partsFolder(job.filmId), film: identityOf(film) },
      onProgress: ({ step, share }) =>
        step === "rendering"
          ? onProgress("Rendering", RENDERING_SHARE * share)
          : onProgress("Checking the file", RENDERING_SHARE + (1 - RENDERING_SHARE) * share),
    });
  const said = { captions, kept: ranges, rate: film.info.rate };
  const figures = await (version.captions.track ? withTrack(said, exported) : exported());
  const beside = join(folder, figures.fileName);
  const sidecars = version.captions.sidecar ? await writeSidecars(beside, said, payload.replaces) : [];
  return {
    ...figures,
    sidecars,
    written: await noteWritten(folder, [figures.fileName, ...sidecars]),
    ...{ revision: row.revision, print: exportPrint(state, version) },
  };
}
