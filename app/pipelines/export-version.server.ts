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
  /** Seconds that it may last; null for as long as it does. */
  limitSeconds?: number | null;
  /** Whether a file that has its name when it is finished is replaced; else it gets a number. */
  replaces?: boolean;
}

/** A file that was rendered and checked. */
export interface Exported extends FileFigures, Rendered {
  /** The name that it has got. */
  fileName: string;
}

/**
 * Renders to a file beside `file`, checks it, and only then gives it its name. What the check finds wrong is told in the
 * figures: the file is there, and needs a look.
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
