import { extname, join } from "node:path";
import { inTransaction } from "~/db/database.server";
import { type FilmRow, listFilms, setFile } from "~/db/films.server";
import { insertJob, listJobs } from "~/db/jobs.server";
import { moveWhole } from "~/disk/write-aside.server";
import { fingerprintOf } from "~/media/fingerprint.server";
import { addFilm, linkFilm, noteFilm } from "../films/films.server";
import { wakeQueue } from "~/queue/queue.server";
import { db, filmFolder, isMissing, storedPath } from "~/db/workplace.server";
import { PROJECT_EXTENSION } from "./project-file";
import { openProject } from "./open-project.server";

/** The film with a missing file that this one matches; undefined if there is none. */
async function filmWithout(file: string): Promise<FilmRow | undefined> {
  const waiting = listFilms(db()).filter((film) => film.fingerprint !== null && isMissing(film));
  if (waiting.length === 0) return undefined;
  const known = await fingerprintOf(file);
  return waiting.find((film) => film.fingerprint === known);
}

/** Gives a film its missing file. */
async function giveSource(film: FilmRow, file: string, name: string, how: "move" | "link"): Promise<void> {
  const kept = how === "link" ? file : join(filmFolder(film.id), `source${extname(name) || ".mp4"}`);
  if (how === "move") await moveWhole(file, kept);
  await noteFilm(film.id, film.name, kept);
  inTransaction(db(), () => {
    setFile(db(), film.id, storedPath(kept));
    const hasCopy = listJobs(db(), film.id).some(({ kind }) => kind === "proxy");
    if (!hasCopy) insertJob(db(), { filmId: film.id, kind: "proxy" });
  });
  wakeQueue();
}

/**
 * Takes any file into the library: saved work is opened, the missing file of a film is given to that film, and anything
 * else is a new film.
 * @param how whether the file is moved into the library, or stays where it is
 * @param presetId as in `addFilm`
 * @returns the film's id
 * @throws FilmError if it is neither saved work nor a film
 */
export async function takeIn(
  file: string,
  name: string,
  how: "move" | "link",
  presetId: string | null = null,
): Promise<string> {
  if (extname(name).toLowerCase() === PROJECT_EXTENSION) return openProject(file, name);
  const waiting = await filmWithout(file);
  if (waiting) {
    await giveSource(waiting, file, name, how);
    return waiting.id;
  }
  return how === "link" ? linkFilm(file, presetId) : addFilm(file, name, how, presetId);
}
