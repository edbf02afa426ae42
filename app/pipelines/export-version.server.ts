import type { FileFigures } from "~/core/film/film-status";
import { writeNamed } from "~/disk/write-aside.server";
import type { RenderOptions } from "~/media/render/encode.server";
import type { RenderPlan } from "~/media/render/plan";
import { renderFilm, type Rendered } from "~/media/render/render.server";
import { checkExport } from "./check-export.server";

export interface ExportStep {
  step: "rendering" | "checking";
  /** Of the step, 0 to 1. */
  share: number;
}

export interface ExportOptions extends Pick<RenderOptions, "signal" | "parts"> {
  onProgress?: (step: ExportStep) => void;
  /** Longest duration in seconds; null for no limit. */
  limitSeconds?: number | null;
  /** Whether it replaces a file of its name; otherwise it gets a number. */
  replaces?: boolean;
}

/** A file that was rendered and checked. */
export interface Exported extends FileFigures, Rendered {
  /** Name of the file. */
  fileName: string;
}

/**
 * Renders to a temporary file beside `file`, checks it, and only then gives it its name. Faults that the check finds are in
 * the figures: the file exists, and should be reviewed.
 */
export async function exportVersion(
  plan: RenderPlan,
  file: string,
  { onProgress, signal, parts, limitSeconds = null, replaces = true }: ExportOptions = {},
): Promise<Exported> {
  const write = async (aside: string): Promise<FileFigures & Rendered> => {
    const rendered = await renderFilm(plan, aside, {
      signal,
      parts,
      onProgress: (share) => onProgress?.({ step: "rendering", share }),
    });
    onProgress?.({ step: "checking", share: 0 });
    const figures = await checkExport(aside, plan, { limitSeconds, signal });
    onProgress?.({ step: "checking", share: 1 });
    return { ...figures, ...rendered };
  };
  const { name, result } = await writeNamed(file, replaces, write);
  return { ...result, fileName: name };
}
