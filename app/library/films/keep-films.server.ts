/** Management of films in the library: renaming, putting away, deleting and restoring, clearing. */
import { DAYS_KEPT } from "~/core/film/days-kept";
import { inTransaction } from "~/db/database.server";
import { deletedBefore, type FilmRow, renameFilm as storeName, setDeletedAt, setPutAway } from "~/db/films.server";
import { deleteJob, dropResult, type JobRow, listJobs, retryJob } from "~/db/jobs.server";
import { clearLightCopy, clearRenders } from "./film-space.server";
import { noteName, removeFilm, stopJobs } from "./films.server";
import { renderIn } from "../exports/render-work";
import { wakeQueue } from "~/queue/queue.server";
import { db } from "~/db/workplace.server";

const DAY_MS = 24 * 60 * 60 * 1000;

/** Renames a film; its file keeps its name. */
export async function renameFilm({ id }: FilmRow, name: string): Promise<void> {
  await noteName(id, name);
  storeName(db(), id, name);
}

export const putAway = ({ id }: FilmRow, away: boolean): void => setPutAway(db(), id, away);

/** Deletes a film's proxy; its pieces are made again as they are viewed. */
export async function clearCopy({ id }: FilmRow): Promise<void> {
  const copies = listJobs(db(), id).filter(({ kind }) => kind === "proxy");
  await stopJobs(id, copies);
  await clearLightCopy(id);
  for (const job of copies) deleteJob(db(), job.id);
}

/** Deletes the rendered files of a film; each can be rendered again. */
export async function clearExports({ id }: FilmRow): Promise<void> {
  // Files written to a folder of the editor's own are theirs; unreadable exports keep nothing.
  const isOurs = (job: JobRow) => (renderIn(job)?.asked.folder ?? null) === null;
  const renders = listJobs(db(), id).filter((job) => job.kind === "render" && isOurs(job));
  await stopJobs(id, renders);
  await clearRenders(id);
  inTransaction(db(), () => {
    for (const job of renders) dropResult(db(), job.id, "The file was cleared to free space.");
  });
}

/** Deletes a film. What can be made again is removed at once; the rest can be restored for a while. */
export async function deleteFilmForNow(film: FilmRow): Promise<void> {
  await stopJobs(film.id);
  await clearCopy(film);
  await clearExports(film);
  setDeletedAt(db(), film.id, Date.now());
}

/** Restores a deleted film, and resumes its remaining jobs. */
export function bringBack({ id }: FilmRow): void {
  inTransaction(db(), () => {
    setDeletedAt(db(), id, null);
    for (const job of listJobs(db(), id)) if (job.kind !== "render") retryJob(db(), job.id);
  });
  wakeQueue();
}

/** Removes films that were deleted too long ago to be restored. */
export async function purgeDeleted(now = Date.now()): Promise<void> {
  for (const id of deletedBefore(db(), now - DAYS_KEPT * DAY_MS)) await removeFilm(id);
}
