import { existsSync } from "node:fs";
import { join, relative, resolve } from "node:path";
import { isId } from "~/core/basics/ids";
import type { FilmRow } from "~/db/films.server";
import { type Db, openDatabase } from "~/db/database.server";
import { diskFullMessage, lowSpaceMessage } from "~/disk/disk-space.server";
import { projectPath } from "~/disk/project-path.server";

/** The data folder: `GLAD_PAN_DATA`, or the folder "data" of the project. */
export const dataFolder = (): string => resolve(process.env.GLAD_PAN_DATA ?? projectPath("data"));

/** The data folder as the person who starts Glad Pan wrote it. */
export const dataFolderShown = (): string => process.env.GLAD_PAN_DATA ?? "data";

export const databaseFile = (): string => join(dataFolder(), "glad-pan.db");
export const backupsFolder = (): string => join(dataFolder(), "backups");
export const filmsFolder = (): string => join(dataFolder(), "films");
export const uploadsFolder = (): string => join(dataFolder(), "uploads");

/**
 * The folder of a film.
 * @throws Error for an invalid id, which could lead elsewhere
 */
export function filmFolder(filmId: string): string {
  if (!isId(filmId)) throw new Error("this is not the id of a film");
  return join(filmsFolder(), filmId);
}
export const proxyFolder = (filmId: string): string => join(filmFolder(filmId), "proxy");
/** The poster of a film. */
export const posterFile = (filmId: string): string => join(filmFolder(filmId), "poster.jpg");
/** The folder of rendered parts, which are reused while they are unchanged. */
export const partsFolder = (filmId: string): string => join(filmFolder(filmId), "parts");
export const exportsFolder = (filmId: string): string => join(filmFolder(filmId), "exports");

/** Path of a film's own file. */
export const sourceFile = ({ file }: Pick<FilmRow, "file">): string => resolve(dataFolder(), file);
/** Whether a film's file, as it is stored, is in the library, and not an original elsewhere. */
export const isOwnCopy = (file: string): boolean => !relative(filmsFolder(), sourceFile({ file })).startsWith("..");

/** Whether a film's own file is missing, or not there yet. */
export const isMissing = (film: Pick<FilmRow, "file">): boolean => !existsSync(sourceFile(film));

/** Path of a file as it is stored: relative if it is in the data folder, so that the folder can be moved. */
export const storedPath = (file: string): string => {
  const inside = relative(dataFolder(), file);
  return inside.startsWith("..") ? file : inside;
};

/** Name of the data folder on pages. */
export const DATA_FOLDER = "the data folder";

/** "the disk is full: 3 MB free in the data folder" */
export const diskIsFull = (): string => diskFullMessage(dataFolder(), DATA_FOLDER);

/** The notice on every page about scarce disk space; null while there is enough. */
export const diskNotice = (): string | null => lowSpaceMessage(dataFolder(), DATA_FOLDER);

// On the global object, because a development server loads this module again on every change.
const shared = globalThis as { gladPanDb?: Db };

/** The process's database. */
export const db = (): Db => (shared.gladPanDb ??= openDatabase(databaseFile()));

/** Makes an open database the process's own, or closes the present one. */
export function useDatabase(opened: Db | null): void {
  if (!opened) shared.gladPanDb?.close();
  shared.gladPanDb = opened ?? undefined;
}
