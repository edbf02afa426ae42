import { gapsIn } from "~/core/analysis/passes";
import { listAnalysed } from "~/db/analysis.server";
import type { FilmRow } from "~/db/films.server";
import { finishJob, insertJob } from "~/db/jobs.server";
import { db } from "~/db/workplace.server";

/**
 * Queues the proxy and the analysis of a film that was added, or whose file was replaced; the analysis is finished already
 * where it was complete before. To be called in a transaction.
 * @param hasFile whether the film's own file is there
 */
export function queueMaking({ id, info }: Pick<FilmRow, "id" | "info">, hasFile = true): void {
  if (hasFile) insertJob(db(), { filmId: id, kind: "proxy" });
  const analysis = insertJob(db(), { filmId: id, kind: "analyse" });
  if (gapsIn(info.frames, listAnalysed(db(), id)).length === 0) finishJob(db(), analysis, { state: "done" });
}
