import type { JobRow } from "~/db/jobs.server";
import type { RenderPayload } from "./payloads";
import { exportsFolder } from "./workplace.server";

/** The folder in which the files of an export lie, or are going to. */
export const exportFolder = ({ filmId }: Pick<JobRow, "filmId">, { folder }: Pick<RenderPayload, "folder">): string =>
  folder ?? exportsFolder(filmId);
