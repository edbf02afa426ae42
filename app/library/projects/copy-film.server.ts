import { copyFile } from "node:fs/promises";
import { existsSync } from "node:fs";
import { parse } from "node:path";
import { nanoid } from "nanoid";
import { type Project } from "~/core/formats/project";
import { type FilmRow, listFilms } from "~/db/films.server";
import { projectOf } from "~/db/projects.server";
import { noteFilm } from "../films/films.server";
import { db, posterFile, storedPath } from "~/db/workplace.server";
import { fingerprintOfFilm, requireAnalysed } from "./save-project.server";
import { fileFor, storeWorked } from "./worked-film.server";

/** The clips of a film for a copy of it. */
async function clipsFor(id: string, clips: Project["clips"]): Promise<Project["clips"]> {
  const shared: Project["clips"] = [];
  for (const clip of clips) shared.push({ ...clip, file: storedPath(await fileFor(id, clip)) });
  return shared;
}

/** "Kite copy.mp4", with a number if the name is taken. */
function copyName(name: string): string {
  const taken = new Set(listFilms(db()).map((film) => film.name));
  const { name: title, ext } = parse(name);
  for (let n = 1; ; n++) {
    const free = `${title} copy${n === 1 ? "" : ` ${n}`}${ext}`;
    if (!taken.has(free)) return free;
  }
}

/**
 * Makes another film of the same file, with the same work on it.
 * @returns its id
 * @throws Refusal as in `saveProject`
 */
export async function duplicateFilm(film: FilmRow): Promise<string> {
  requireAnalysed(film);
  return copyFilm(film, copyName(film.name));
}

/**
 * Makes another film of the same file, analysed as far as this one.
 * @param id of the new film
 */
export async function copyFilm(film: FilmRow, name: string, id = nanoid(10)): Promise<string> {
  const project = projectOf(db(), film, await fingerprintOfFilm(film));
  const file = await fileFor(id, film);
  await noteFilm(id, name, file);
  if (existsSync(posterFile(film.id))) await copyFile(posterFile(film.id), posterFile(id));
  storeWorked(id, name, file, { ...project, clips: await clipsFor(id, project.clips) });
  return id;
}
