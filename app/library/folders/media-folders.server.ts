/** Folders of this machine that the operator has opened to the library, and what films lie in them. */
import { readdir, realpath, stat } from "node:fs/promises";
import { basename, delimiter, join, relative, resolve, sep } from "node:path";
import { isFilmName } from "~/media/film-names";
import { Refusal } from "~/core/basics/refusal";
import { libraryErrors } from "~/texts/library-errors";

const t = libraryErrors.films;

/** Nothing in the folders that were opened is at this path. */
export class NotOpenError extends Refusal {
  override name = "NotOpenError";

  constructor(message: string) {
    super(message, 404);
  }
}

export interface FolderEntry {
  name: string;
  path: string;
}

export interface FilmEntry extends FolderEntry {
  bytes: number;
  /** Milliseconds. */
  changedAt: number;
}

export interface FolderView {
  /** Null for the list of the opened folders. */
  here: FolderEntry | null;
  /** The folder above; null where that is the list. */
  up: string | null;
  folders: FolderEntry[];
  films: FilmEntry[];
}

/** Entries that are listed of one folder. */
const MOST_ENTRIES = 2000;

/** The folders that `GLAD_PAN_MEDIA` opens, as they really are; those that are not there are left out. */
export async function openedFolders(): Promise<FolderEntry[]> {
  const named = (process.env.GLAD_PAN_MEDIA ?? "").split(delimiter).filter(Boolean);
  const found = await Promise.all(named.map((folder) => realpath(resolve(folder)).catch(() => null)));
  return [...new Set(found.flatMap((path) => path ?? []))].map((path) => ({ name: basename(path) || path, path }));
}

/** Whether a path that is as it really is lies in a folder. */
const liesIn = (path: string, folder: string): boolean => {
  const way = relative(folder, path);
  return way !== ".." && !way.startsWith(`..${sep}`) && !way.startsWith(sep);
};

/**
 * A path as it really is, by way of any links.
 *
 * @throws NotOpenError if it is not in a folder that was opened
 */
export async function requireOpen(path: string): Promise<string> {
  const real = await realpath(resolve(path)).catch(() => null);
  const open = await openedFolders();
  if (real && open.some((folder) => liesIn(real, folder.path))) return real;
  throw new NotOpenError(t.notHere);
}

/**
 * What is in a folder, or which folders were opened.
 *
 * @throws NotOpenError
 */
export async function viewFolder(path: string | null): Promise<FolderView> {
  const open = await openedFolders();
  if (path === null) return { here: null, up: null, folders: open, films: [] };
  const here = await requireOpen(path);
  const entries = await readdir(here, { withFileTypes: true }).catch(() => {
    throw new NotOpenError(t.cannotBeRead(basename(here)));
  });
  const folders: FolderEntry[] = [];
  const films: FilmEntry[] = [];
  const byName = entries.sort((a, b) => a.name.localeCompare(b.name, undefined, { numeric: true }));
  for (const { name } of byName.filter((entry) => !entry.name.startsWith(".")).slice(0, MOST_ENTRIES)) {
    const entry = { name, path: join(here, name) };
    const found = await requireOpen(entry.path)
      .then((real) => stat(real))
      .catch(() => null);
    if (found?.isDirectory()) folders.push(entry);
    if (found?.isFile() && isFilmName(name)) films.push({ ...entry, bytes: found.size, changedAt: found.mtimeMs });
  }
  const isOpened = open.some((folder) => folder.path === here);
  return { here: { name: basename(here), path: here }, up: isOpened ? null : resolve(here, ".."), folders, films };
}
