/** Folders of this machine that the operator has opened to the library, and the films in them. */
import { readdir, realpath, stat } from "node:fs/promises";
import { basename, delimiter, join, relative, resolve, sep } from "node:path";
import { isFilmName } from "~/media/film-names";
import { Refusal } from "~/core/basics/refusal";
import { libraryErrors } from "~/texts/library-errors";

const t = libraryErrors.films;

/** A path outside the opened folders. */
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
  /** Null for the list of opened folders. */
  here: FolderEntry | null;
  /** The parent folder; null where that is the list. */
  up: string | null;
  folders: FolderEntry[];
  films: FilmEntry[];
}

/** Most entries listed per folder. */
const MOST_ENTRIES = 2000;

/** The folders opened by `GLAD_PAN_MEDIA`, with links resolved; missing ones are omitted. */
export async function openedFolders(): Promise<FolderEntry[]> {
  const named = (process.env.GLAD_PAN_MEDIA ?? "").split(delimiter).filter(Boolean);
  const found = await Promise.all(named.map((folder) => realpath(resolve(folder)).catch(() => null)));
  return [...new Set(found.flatMap((path) => path ?? []))].map((path) => ({ name: basename(path) || path, path }));
}

/** Whether a path with links resolved is inside a folder. */
const liesIn = (path: string, folder: string): boolean => {
  const way = relative(folder, path);
  return way !== ".." && !way.startsWith(`..${sep}`) && !way.startsWith(sep);
};

/**
 * A path with links resolved.
 * @throws NotOpenError if it is not in an opened folder
 */
export async function requireOpen(path: string): Promise<string> {
  const real = await realpath(resolve(path)).catch(() => null);
  const open = await openedFolders();
  if (real && open.some((folder) => liesIn(real, folder.path))) return real;
  throw new NotOpenError(t.notHere);
}

/**
 * Content of a folder, or the opened folders.
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
