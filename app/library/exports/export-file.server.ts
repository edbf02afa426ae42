import type { JobRow } from "~/db/jobs.server";
import type { RenderAsked } from "~/db/job-work";
import { exportsFolder } from "~/db/workplace.server";

/** Folder of the files of an export. */
export const exportFolder = ({ filmId }: Pick<JobRow, "filmId">, { folder }: Pick<RenderAsked, "folder">): string =>
  folder ?? exportsFolder(filmId);
