import { join, resolve } from "node:path";
import { type Db, openDatabase } from "~/db/database.server";
import { projectPath } from "~/media/project-path.server";

/** Where everything is kept: `GLAD_PAN_DATA`, or the folder "data" of the project. */
export const dataFolder = (): string => resolve(process.env.GLAD_PAN_DATA ?? projectPath("data"));

export const databaseFile = (): string => join(dataFolder(), "glad-pan.db");
export const filmFolder = (filmId: string): string => join(dataFolder(), "films", filmId);
export const proxyFile = (filmId: string): string => join(filmFolder(filmId), "proxy.mp4");
export const posterFile = (filmId: string): string => join(filmFolder(filmId), "poster.jpg");
export const exportsFolder = (filmId: string): string => join(filmFolder(filmId), "exports");
export const uploadsFolder = (): string => join(dataFolder(), "uploads");

// Kept on the global object, because a development server loads this module again on every change.
const kept = globalThis as { gladPanDb?: Db };

/** The process's database. */
export const db = (): Db => (kept.gladPanDb ??= openDatabase(databaseFile()));
