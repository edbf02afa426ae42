import { existsSync } from "node:fs";
import { join, relative, resolve } from "node:path";
import { isId } from "~/core/basics/ids";
import type { FilmRow } from "~/db/films.server";
import { type Db, openDatabase } from "~/db/database.server";
import { diskFullMessage, lowSpaceMessage } from "~/disk/disk-space.server";
import { projectPath } from "~/disk/project-path.server";

/** Where everything is kept: `GLAD_PAN_DATA`, or the folder "data" of the project. */
export const dataFolder = (): string => resolve(process.env.GLAD_PAN_DATA ?? projectPath("data"));

/** What the data folder is called where somebody starts Glad Pan: as it was given. */
export const dataFolderShown = (): string => process.env.GLAD_PAN_DATA ?? "data";

export const databaseFile = (): string => join(dataFolder(), "glad-pan.db");
export const backupsFolder = (): string => join(dataFolder(), "backups");
export const filmsFolder = (): string => join(dataFolder(), "films");
export const uploadsFolder = (): string => join(dataFolder(), "uploads");

/**
 * The folder that holds all of a film.
 *
 * @throws Error for what is no id, and could lead elsewhere
 */
export function filmFolder(filmId: string): string {
  if (!isId(filmId)) throw new Error("this is not the id of a film");
  return join(filmsFolder(), filmId);
}
export const proxyFolder = (filmId: string): string => join(filmFolder(filmId), "proxy");
/** Where the pieces of a film's proxy are. */
export const posterFile = (filmId: string): string => join(filmFolder(filmId), "poster.jpg");
/** Where parts of renders are kept, so that what has not changed need not be rendered again. */
export const partsFolder = (filmId: string): string => join(filmFolder(filmId), "parts");
export const exportsFolder = (filmId: string): string => join(filmFolder(filmId), "exports");

/** Where a film's own file is. */
export const sourceFile = ({ file }: Pick<FilmRow, "file">): string => resolve(dataFolder(), file);
/** Whether a film's file, as it is stored, is kept in the library, and not an original that lies elsewhere. */
export const isOwnCopy = (file: string): boolean => !relative(filmsFolder(), sourceFile({ file })).startsWith("..");

/** Whether a film's own file is not where it was, or not there yet. */
export const isMissing = (film: Pick<FilmRow, "file">): boolean => !existsSync(sourceFile(film));

/** How a file is stored: one in the data folder from there on, so that the folder can be moved. */
export const storedPath = (file: string): string => {
  const inside = relative(dataFolder(), file);
  return inside.startsWith("..") ? file : inside;
};

/** What pages call the data folder. */
export const DATA_FOLDER = "the data folder";

/** "the disk is full: 3 MB free in the data folder" */
export const diskIsFull = (): string => diskFullMessage(dataFolder(), DATA_FOLDER);

/** What every page says about the space that is left; null while there is enough. */
export const diskNotice = (): string | null => lowSpaceMessage(dataFolder(), DATA_FOLDER);

// Kept on the global object, because a development server loads this module again on every change.
const shared = globalThis as { gladPanDb?: Db };

/** The process's database. */
export const db = (): Db => (shared.gladPanDb ??= openDatabase(databaseFile()));

/** Makes an open database the process's one, or closes the one there is. */
export function useDatabase(opened: Db | null): void {
  if (!opened) shared.gladPanDb?.close();
  shared.gladPanDb = opened ?? undefined;
}
