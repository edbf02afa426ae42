/** Films that are added with work on them. */
import { existsSync } from "node:fs";
import { basename, join } from "node:path";
import { nanoid } from "nanoid";
import { brokenInvariant } from "~/core/edits/invariants";
import { forAnotherFilm, type Project } from "~/core/formats/project";
import { inTransaction } from "~/db/database.server";
import { type FilmRow, findFilm } from "~/db/films.server";
import { loadState } from "~/db/film-state.server";
import { filesInList, isClipList } from "~/media/clip-list.server";
import { insertProject } from "~/db/projects.server";
import { shareFile } from "~/disk/write-aside.server";
import { FilmError } from "~/media/film-tool.server";
import { queueMaking } from "../films/queue-making.server";
import { wakeQueue } from "~/queue/queue.server";
import { db, filmFolder, isOwnCopy, sourceFile, storedPath } from "~/db/workplace.server";
import { libraryErrors } from "~/texts/library-errors";

/**
 * Stores a film with work on it; only its proxy remains to be made, if its file is there.
 * @throws FilmError if the work makes no sense; nothing is stored then
 */
export function storeWorked(id: string, name: string, file: string, project: Project): void {
  const { info } = project.film;
  inTransaction(db(), () => {
    insertProject(
      db(),
      { id, name, file: storedPath(file), info, fingerprint: project.film.fingerprint },
      forAnotherFilm(project, id, () => nanoid(10)),
    );
    const broken = brokenInvariant(loadState(db(), findFilm(db(), id)!), info.frames);
    if (broken) throw new FilmError(`${name}: ${libraryErrors.projects.inconsistent(broken)}`);
    queueMaking({ id, info }, existsSync(file));
  });
  wakeQueue();
}

/** A film's file for another film: the same path where it is elsewhere, else a copy in the other's folder. */
export async function fileFor(id: string, film: Pick<FilmRow, "file">): Promise<string> {
  const source = sourceFile(film);
  if (!isOwnCopy(film.file)) return source;
  const file = join(filmFolder(id), basename(source));
  if (!existsSync(source)) return file;
  await shareFile(source, file);
  if (isClipList(source)) {
    const parts = filesInList(source).filter((part) => existsSync(part));
    for (const part of parts) await shareFile(part, join(filmFolder(id), basename(part)));
  }
  return file;
}
