import type { RenderAsked, RenderResult } from "~/db/job-work";
import type { JobRow } from "~/db/jobs.server";

/** Share of rendering in the whole job; the rest is checking the result. */
export const RENDERING_SHARE = 0.92;

/** A render, and the name of its file. */
export interface Render {
  asked: RenderAsked;
  result: RenderResult | null;
  fileName: string;
}

/** The render of a job; null where it is none, or its stored data cannot be read. */
export function renderIn({ work }: JobRow): Render | null {
  if (work?.kind !== "render") return null;
  const { asked, result } = work;
  return { asked, result, fileName: result?.fileName ?? asked.fileName };
}
