import { join } from "node:path";
import type { JobRow } from "~/db/jobs.server";
import type { RenderPayload } from "./payloads";
import { exportsFolder } from "./workplace.server";

/** Where the file of an export lies, or is going to. */
export const exportFile = ({ filmId }: Pick<JobRow, "filmId">, { folder, fileName }: RenderPayload): string =>
  join(folder ?? exportsFolder(filmId), fileName);
