import { existsSync } from "node:fs";
import type { FilmRow } from "~/db/films.server";
import { isMissing, sourceFile } from "~/db/workplace.server";
import { filesInList, isClipList } from "~/media/clip-list.server";
import { FilmError } from "~/media/film-tool.server";
import { libraryErrors } from "~/texts/library-errors";

const t = libraryErrors.films;

/** @throws FilmError if a film's own file is missing, or its clips are not ready */
export function requireSource(film: Pick<FilmRow, "file" | "name">): void {
  const source = sourceFile(film);
  if (isClipList(source) && existsSync(source) && filesInList(source).some((part) => !existsSync(part))) {
    throw new FilmError(`${film.name}: ${t.clipsNotReady}`);
  }
  if (isMissing(film)) {
    throw new FilmError(`${film.name}: ${t.fileMissing}`);
  }
}
