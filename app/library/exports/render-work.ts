import type { RenderAsked, RenderResult } from "~/db/job-work";
import type { JobRow } from "~/db/jobs.server";

/** Of a render, beside the check of what came of it. */
export const RENDERING_SHARE = 0.92;

/** A render, and the name that its file has got or is to get. */
export interface Render {
  asked: RenderAsked;
  result: RenderResult | null;
  fileName: string;
}

/** The render that a job is; null where it is none, or what is stored of it cannot be read. */
export function renderIn({ work }: JobRow): Render | null {
  if (work?.kind !== "render") return null;
  const { asked, result } = work;
  return { asked, result, fileName: result?.fileName ?? asked.fileName };
}
