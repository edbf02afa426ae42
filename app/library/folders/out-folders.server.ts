/** Folders of this machine to which the operator lets exports be written. */
import { accessSync, constants, statSync } from "node:fs";
import { basename, delimiter, dirname, resolve } from "node:path";
import type { OutputSettings } from "~/core/formats/output-settings";
import { Refusal } from "~/core/basics/refusal";
import type { FilmRow } from "~/db/films.server";
import { isOwnCopy, sourceFile } from "~/db/workplace.server";
import { libraryErrors } from "~/texts/library-errors";

const t = libraryErrors.films;

export interface OutFolder {
  name: string;
  path: string;
}

/** In the list of folders: that of a film that was not copied. */
const BESIDE = "beside";

const named = (): string[] => (process.env.GLAD_PAN_OUT ?? "").split(delimiter).filter(Boolean);

function isWritable(path: string): boolean {
  try {
    accessSync(path, constants.W_OK);
    return statSync(path).isDirectory();
  } catch {
    return false;
  }
}

/** The folders allowed by `GLAD_PAN_OUT` that can be written to. */
export const outFolders = (): OutFolder[] =>
  named()
    .filter((each) => each !== BESIDE)
    .map((path) => resolve(path))
    .filter(isWritable)
    .map((path) => ({ name: basename(path) || path, path }));

/** The folder of a film's own file, where it can be written to; null for a film in the library. */
export function besideFolder(film: Pick<FilmRow, "file">): string | null {
  if (!named().includes(BESIDE) || isOwnCopy(film.file)) return null;
  const folder = dirname(sourceFile(film));
  return isWritable(folder) ? folder : null;
}

/**
 * The folder of a film's export; null for the library's own.
 * @throws Refusal if it must not be written to
 */
export function requireOut(film: FilmRow, folder: OutputSettings["folder"]): string | null {
  if (folder === null) return null;
  if (folder === "beside") {
    const beside = besideFolder(film);
    if (beside) return beside;
    throw new Refusal(`${film.name}: ${t.notBeside}`, 409);
  }
  const path = resolve(folder.path);
  if (outFolders().some((open) => open.path === path)) return path;
  throw new Refusal(t.folderNotWritable(folder.path), 409);
}
