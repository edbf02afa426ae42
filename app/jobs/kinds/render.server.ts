import { join } from "node:path";
import { toRender } from "~/core/version/lay";
import { framesIn } from "~/core/time/rate";
import { requireSpace } from "~/disk/disk-space.server";
import { estimatedBytes } from "~/media/estimated-size";
import { identityOf } from "~/media/film-identity.server";
import { withTrack, writeSidecars } from "~/pipelines/caption-files.server";
import { exportVersion } from "~/pipelines/export-version.server";
import { exportFolder } from "~/library/exports/export-file.server";
import { exportPrint } from "~/library/exports/export-state.server";
import { layVersion } from "~/library/versions/lay-version.server";
import { requireOut } from "~/library/folders/out-folders.server";
import { libraryFiles } from "~/library/own/own-files.server";
import { RENDERING_SHARE } from "~/library/exports/render-work";
import type { RenderAsked, RenderResult } from "~/db/job-work";
import type { JobGround, JobOptions } from "../job-options";
import { DATA_FOLDER, dataFolder, partsFolder } from "~/db/workplace.server";
import { noteWritten } from "~/library/exports/written-files.server";
import { libraryErrors } from "~/texts/library-errors";

/** Renders a version as it is now. */
export async function renderVersion(
  { db, film, row, job }: JobGround,
  asked: RenderAsked,
  { onProgress, signal }: JobOptions,
): Promise<RenderResult> {
  const { versionId, fileName, output } = asked;
  onProgress("Laying the path", 0);
  const { state, version, laid } = layVersion(db, row, versionId);
  const { captions } = state;
  const { target, ranges } = laid;
  if (ranges.length === 0) throw new Error(libraryErrors.exports.nothingLeft(version.name));
  // A folder that was allowed at the request may not be any more.
  if (asked.folder !== null) requireOut(row, output.folder);
  const bytes = estimatedBytes("render", target, framesIn(ranges), film.info.rate);
  requireSpace(asked.folder ?? dataFolder(), asked.folder ?? DATA_FOLDER, bytes, fileName);
  const folder = exportFolder(job, asked);
  const plan = { ...film, ...toRender(laid, version, captions), output, own: libraryFiles(version) };
  const exported = (track?: string) =>
    exportVersion(track === undefined ? plan : { ...plan, captions: track }, join(folder, fileName), {
      signal,
      limitSeconds: version.limitSeconds,
      replaces: asked.replaces,
      parts: { folder: partsFolder(job.filmId), film: identityOf(film) },
      onProgress: ({ step, share }) =>
        step === "rendering"
          ? onProgress("Rendering", RENDERING_SHARE * share)
          : onProgress("Checking the file", RENDERING_SHARE + (1 - RENDERING_SHARE) * share),
    });
  const said = { captions, kept: ranges, rate: film.info.rate };
  const figures = await (version.captions.track ? withTrack(said, exported) : exported());
  const beside = join(folder, figures.fileName);
  const sidecars = version.captions.sidecar ? await writeSidecars(beside, said, asked.replaces) : [];
  return {
    ...figures,
    sidecars,
    written: await noteWritten(folder, [figures.fileName, ...sidecars]),
    revision: row.revision,
    print: exportPrint(state, version),
  };
}
