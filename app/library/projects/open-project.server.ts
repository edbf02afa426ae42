import { rm } from "node:fs/promises";
import { extname, join } from "node:path";
import { nanoid } from "nanoid";
import { type Project, ProjectError } from "~/core/formats/project";
import type { FilmInfo } from "~/core/film/film-info";
import { type FilmRow, listFilms } from "~/db/films.server";
import { requireSpace } from "~/disk/disk-space.server";
import { writeAside } from "~/disk/write-aside.server";
import { openZip, type OpenZip } from "~/disk/zip.server";
import { takeOwn } from "./own-in-project.server";
import { apart } from "~/media/apart/apart.server";
import { FilmError } from "~/media/film-tool.server";
import { withFields } from "~/media/film-choices";
import { probeFilm } from "~/media/probe.server";
import { noteFilm } from "../films/films.server";
import { filmNameOf } from "../uploads/uploads.server";
import { DATA_FOLDER, dataFolder, db, filmFolder, isMissing } from "~/db/workplace.server";
import { DOCUMENT } from "./project-file";
import { fileFor, storeWorked } from "./worked-film.server";
import { libraryErrors } from "~/texts/library-errors";

const t = libraryErrors.projects;

const SOURCE_NAME = /^source\.\w{1,8}$/;
/** Large enough for the longest film with many people. */
const MOST_DOCUMENT_BYTES = 32 * 2 ** 20;

async function readArchive(zip: OpenZip, name: string): Promise<Project> {
  const text = await zip.readText(DOCUMENT, MOST_DOCUMENT_BYTES);
  if (text === null) throw new FilmError(`${name}: ${t.noProjectInside}`);
  try {
    // Its clips are ignored: their files are not in the archive, and their paths cannot be trusted.
    return { ...(await apart("project", name, text)), clips: [] };
  } catch (error) {
    if (error instanceof ProjectError) throw new FilmError(`${name}: ${error.message}.`);
    throw error;
  }
}

/** The film of the library with this file. */
const filmWith = (known: string): FilmRow | undefined =>
  listFilms(db()).find((film) => film.fingerprint === known && !isMissing(film));

/** @throws FilmError if a file is not the film of the project */
async function requireSame(file: string, name: string, info: FilmInfo): Promise<void> {
  const found = await probeFilm(file, name);
  const { picture, frames } = info.fields ? withFields(found) : found;
  if (frames === info.frames && picture.width === info.picture.width && picture.height === info.picture.height) return;
  throw new FilmError(`${name}: ${t.otherFilm}`);
}

/**
 * Opens saved work as a film of the library. Its file is taken from the archive, or from a film that has the same;
 * otherwise it is asked for.
 * @param file the archive
 * @param name of the archive
 * @returns the film's id
 * @throws FilmError if it is no such archive
 */
export async function openProject(file: string, name: string): Promise<string> {
  const zip = await openZip(file).catch(() => {
    throw new FilmError(`${name}: ${t.damaged}`);
  });
  try {
    const project = await readArchive(zip, name);
    // yauzl never delivers more of an entry than its declared size.
    requireSpace(dataFolder(), DATA_FOLDER, zip.bytes, name);
    const id = nanoid(10);
    try {
      const title = filmNameOf(project.film.name);
      const inside = zip.names.find((entry) => SOURCE_NAME.test(entry));
      const source = await sourceOf(id, project, inside, zip);
      if (inside) await requireSame(source, title, project.film.info);
      await noteFilm(id, title, source);
      await takeOwn(zip);
      storeWorked(id, title, source, project);
      return id;
    } catch (error) {
      // Extracted files must not be taken for a film at the next start.
      await rm(filmFolder(id), { recursive: true, force: true });
      throw error;
    }
  } finally {
    zip.close();
  }
}

/** Path of an opened film's file, now or once it is there. */
async function sourceOf(id: string, { film }: Project, inside: string | undefined, zip: OpenZip): Promise<string> {
  if (inside) {
    const kept = join(filmFolder(id), inside);
    await writeAside(kept, (aside) => zip.extract(inside, aside));
    return kept;
  }
  const same = filmWith(film.fingerprint);
  return same ? fileFor(id, same) : join(filmFolder(id), `source${extname(filmNameOf(film.name)) || ".mp4"}`);
}
