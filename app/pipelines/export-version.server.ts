import { writeAside } from "~/disk/write-aside.server";
import type { HeardIn } from "~/core/composition/heard";
import type { ShownAt } from "~/core/composition/composition";
import type { FileFigures } from "~/core/film-status";
import { type OutputFormat, USUAL_FORMAT } from "~/core/formats/output-formats";
import type { Size } from "~/core/geometry/box";
import { type FrameRange, framesIn } from "~/core/time/rate";
import type { FilmFile } from "~/media/film-file";
import { renderFilm } from "~/media/render.server";
import type { OwnContents } from "~/media/own/load-pictures.server";
import { verifyFile } from "~/media/verify.server";
import { barFaults } from "./check-bars.server";

/** A render that is written but not as it should be. */
export class ExportFault extends Error {
  override name = "ExportFault";
}

export interface ExportStep {
  step: "rendering" | "checking";
  /** Of the step, 0 to 1. */
  share: number;
}

export interface ExportRequest {
  film: FilmFile;
  target: Size;
  /** The parts of the film that are kept, in order. */
  ranges: readonly FrameRange[];
  /** What is shown at each frame that is kept. */
  shown: ShownAt;
  /** What of the editor's own is in it. */
  own?: OwnContents;
  /** As `RenderPlan` has them. */
  captions?: string;
  heard?: readonly HeardIn[] | null;
  format?: OutputFormat;
}

/**
 * Renders to a file beside `file`, checks it, and only then gives it its name.
 *
 * @throws ExportFault if the check finds anything wrong; nothing is left behind then
 */
export async function exportVersion(
  request: ExportRequest,
  file: string,
  { onProgress, signal }: { onProgress?: (step: ExportStep) => void; signal?: AbortSignal } = {},
): Promise<FileFigures> {
  const { film, target, ranges, shown, own, captions, heard, format = USUAL_FORMAT } = request;
  const figures = await writeAside(file, async (aside) => {
    await renderFilm({ ...film, target, ranges, shown, own, captions, heard, format }, aside, {
      signal,
      onProgress: (share) => onProgress?.({ step: "rendering", share }),
    });
    onProgress?.({ step: "checking", share: 0 });
    const expected = {
      size: target,
      rate: film.info.rate,
      frames: framesIn(ranges),
      sound: Boolean(film.info.audio) || Boolean(heard),
      captions: captions !== undefined,
    };
    const { figures, faults } = await verifyFile(aside, expected, signal);
    faults.push(...(await barFaults(aside, request, signal)));
    if (faults.length > 0) throw new ExportFault(`${film.name}: the finished file has faults: ${faults.join("; ")}`);
    return figures;
  });
  onProgress?.({ step: "checking", share: 1 });
  return figures;
}
