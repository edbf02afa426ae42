/** Saves the work on a film as a file. */
import { titleOf } from "~/core/formats/file-names";
import { rm } from "node:fs/promises";
import { extname, join } from "node:path";
import type { Readable } from "node:stream";
import { nanoid } from "nanoid";
import { type Project } from "~/core/formats/project";
import { Refusal } from "~/core/basics/refusal";
import { type FilmRow, setFingerprint } from "~/db/films.server";
import { isAnalysed } from "~/db/jobs.server";
import { hasClips } from "~/db/clips.server";
import { joinIntoOne } from "~/media/join-clips.server";
import { projectOf } from "~/db/projects.server";
import { zipOf } from "~/disk/zip.server";
import { ownParts } from "./own-in-project.server";
import { probeFilm } from "~/media/probe.server";
import { fingerprintOf } from "~/media/fingerprint.server";
import { requireSource } from "~/library/films/require-source.server";
import { db, filmFolder, sourceFile } from "~/db/workplace.server";
import { DOCUMENT, PROJECT_EXTENSION } from "./project-file";
import { libraryErrors } from "~/texts/library-errors";

const t = libraryErrors.projects;

/** The fingerprint of a film's file, computed where it is unknown. */
export async function fingerprintOfFilm(film: FilmRow): Promise<string> {
  if (film.fingerprint) return film.fingerprint;
  requireSource(film);
  const found = await fingerprintOf(sourceFile(film));
  setFingerprint(db(), film.id, found);
  return found;
}

/** @throws Refusal while a film is analysed */
export function requireAnalysed({ id }: FilmRow): void {
  if (!isAnalysed(db(), id)) {
    throw new Refusal(t.stillAnalysed);
  }
}

/** The work on a film of clips, joined into one file for whoever opens it. */
async function joinedProject(film: FilmRow): Promise<{ project: Project; file: string }> {
  const file = join(filmFolder(film.id), `joined-${nanoid(10)}.mov`);
  await joinIntoOne(sourceFile(film), film.name, file);
  const project = projectOf(db(), film, await fingerprintOf(file));
  const info = await probeFilm(file, film.name);
  return { project: { ...project, clips: [], film: { ...project.film, info } }, file };
}

/**
 * All work on a film as a file, with or without the film's own file.
 * @throws Refusal if the film is still being analysed, or its file is missing
 */
export async function saveProject(film: FilmRow, withSource: boolean): Promise<{ name: string; stream: Readable }> {
  requireAnalysed(film);
  const name = `${titleOf(film.name)}${PROJECT_EXTENSION}`;
  if (withSource) requireSource(film);
  if (hasClips(db(), film.id)) {
    if (!withSource) throw new Refusal(t.needsItsFilm);
    const { project, file } = await joinedProject(film);
    const stream = zipOf([
      { name: DOCUMENT, text: JSON.stringify(project) },
      { name: `source${extname(file)}`, file },
      ...ownParts(project),
    ]);
    stream.once("close", () => void rm(file, { force: true }));
    return { name, stream };
  }
  const source = sourceFile(film);
  const project = projectOf(db(), film, await fingerprintOfFilm(film));
  const text = JSON.stringify(project);
  const parts = withSource ? [{ name: `source${extname(source)}`, file: source }] : [];
  return { name, stream: zipOf([{ name: DOCUMENT, text }, ...parts, ...ownParts(project)]) };
}
