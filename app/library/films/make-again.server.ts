import { rm } from "node:fs/promises";
import { inTransaction } from "~/db/database.server";
import { type FilmRow, findFilm } from "~/db/films.server";
import { deleteJob, insertJob, listJobs } from "~/db/jobs.server";
import { isClipList } from "~/media/clip-list.server";
import { clearLightCopy } from "./film-space.server";
import { noteFilm } from "./films.server";
import { queueMaking } from "./queue-making.server";
import { followUntracked } from "./marks.server";
import { wakeQueue } from "~/queue/queue.server";
import { db, posterFile, sourceFile } from "~/db/workplace.server";

/** Makes everything again that depends on a film's file, after it was replaced. */
export async function makeAgain({ id, name }: Pick<FilmRow, "id" | "name">): Promise<void> {
  const { file, info } = findFilm(db(), id)!;
  const source = sourceFile({ file });
  await noteFilm(id, name, source);
  await clearLightCopy(id);
  await rm(posterFile(id), { force: true });
  inTransaction(db(), () => {
    for (const job of listJobs(db(), id)) if (job.kind !== "render") deleteJob(db(), job.id);
    if (isClipList(source)) insertJob(db(), { filmId: id, kind: "join" });
    queueMaking({ id, info });
    followUntracked(db(), id);
  });
  wakeQueue();
}
