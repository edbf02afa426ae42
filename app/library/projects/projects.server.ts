/** Work on a film as a file of its own, and films made from such work: opened, or duplicated. */
import { titleOf } from "~/core/formats/file-names";
import { copyFile, rm } from "node:fs/promises";
import { existsSync } from "node:fs";
import { basename, extname, join, parse } from "node:path";
import type { Readable } from "node:stream";
import { nanoid } from "nanoid";
import { brokenInvariant } from "~/core/edits/invariants";
import { forAnotherFilm, type Project, ProjectError } from "~/core/formats/project";
import type { FilmInfo } from "~/core/film-info";
import { Refusal } from "~/core/refusal";
import { inTransaction } from "~/db/database.server";
import { type FilmRow, findFilm, listFilms, setFile, setFingerprint } from "~/db/films.server";
import { finishJob, insertJob, isAnalysed, listJobs } from "~/db/jobs.server";
import { listAnalysed } from "~/db/analysis.server";
import { hasClips } from "~/db/clips.server";
import { loadState } from "~/db/film-state.server";
import { gapsIn } from "~/core/analysis/passes";
import { filesInList, isClipList } from "~/media/clip-list.server";
import { joinIntoOne } from "~/media/join-clips.server";
import { insertProject, projectOf } from "~/db/projects.server";
import { requireSpace } from "~/disk/disk-space.server";
import { moveWhole, shareFile, writeAside } from "~/disk/write-aside.server";
import { openZip, type OpenZip, zipOf } from "~/disk/zip.server";
import { ownParts, takeOwn } from "./own-in-project.server";
import { apart } from "~/media/apart/apart.server";
import { FilmError } from "~/media/film-tool.server";
import { withFields } from "~/media/film-choices";
import { probeFilm } from "~/media/probe.server";
import { fingerprintOf } from "~/media/fingerprint.server";
import { addFilm, linkFilm, noteFilm } from "../films/films.server";
import { filmNameOf } from "../uploads/uploads.server";
import { wakeQueue } from "~/queue/queue.server";
import { requireSource } from "~/library/films/require-source.server";
import {
  DATA_FOLDER,
  dataFolder,
  db,
  filmFolder,
  isKept,
  isMissing,
  posterFile,
  sourceFile,
  storedPath,
} from "~/db/workplace.server";

/** What files with a film's work are called. */
export const PROJECT_EXTENSION = ".gladpan";
const DOCUMENT = "project.json";
const SOURCE_NAME = /^source\.\w{1,8}$/;
/** Of the longest film, with everybody in it. */
const MOST_DOCUMENT_BYTES = 32 * 2 ** 20;

/** What is known of a film's file wherever it lies; found out where that was not done yet. */
async function fingerprint(film: FilmRow): Promise<string> {
  if (film.fingerprint) return film.fingerprint;
  requireSource(film);
  const found = await fingerprintOf(sourceFile(film));
  setFingerprint(db(), film.id, found);
  return found;
}

/** @throws Refusal while a film is analysed */
function requireAnalysed({ id }: FilmRow): void {
  if (!isAnalysed(db(), id)) {
    throw new Refusal("the film is still being analysed; save or duplicate it when that is done");
  }
}

/** Work on a film of clips, of which one file is made for whoever opens it. */
async function joinedProject(film: FilmRow): Promise<{ project: Project; file: string }> {
  const file = join(filmFolder(film.id), `joined-${nanoid(10)}.mov`);
  await joinIntoOne(sourceFile(film), film.name, file);
  const project = projectOf(db(), film, await fingerprintOf(file));
  const info = await probeFilm(file, film.name);
  return { project: { ...project, clips: [], film: { ...project.film, info } }, file };
}

/**
 * All work on a film as a file, with the film's own file or without.
 *
 * @throws Refusal if the film is still being analysed, or its file is missing
 */
export async function saveProject(film: FilmRow, withSource: boolean): Promise<{ name: string; stream: Readable }> {
  requireAnalysed(film);
  const name = `${titleOf(film.name)}${PROJECT_EXTENSION}`;
  if (withSource) requireSource(film);
  if (hasClips(db(), film.id)) {
    if (!withSource) throw new Refusal("the film is made of clips; save the project with its film");
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
  const project = projectOf(db(), film, await fingerprint(film));
  const text = JSON.stringify(project);
  const parts = withSource ? [{ name: `source${extname(source)}`, file: source }] : [];
  return { name, stream: zipOf([{ name: DOCUMENT, text }, ...parts, ...ownParts(project)]) };
}

/**
 * Stores a film that has work on it already; only its proxy is still to be made, if there is anything to make it of.
 *
 * @throws FilmError if the work makes no sense; nothing is stored then
 */
function register(id: string, name: string, file: string, project: Project): void {
  const { info } = project.film;
  inTransaction(db(), () => {
    insertProject(
      db(),
      { id, name, file: storedPath(file), info, fingerprint: project.film.fingerprint },
      forAnotherFilm(project, id, () => nanoid(10)),
    );
    const broken = brokenInvariant(loadState(db(), findFilm(db(), id)!), info.frames);
    if (broken) throw new FilmError(`${name}: the saved project is not consistent: ${broken}.`);
    const analysis = insertJob(db(), { filmId: id, kind: "analyse" });
    if (gapsIn(info.frames, listAnalysed(db(), id)).length === 0) {
      finishJob(db(), analysis, { state: "done", result: { shots: project.shots.length } });
    }
    if (existsSync(file)) insertJob(db(), { filmId: id, kind: "proxy" });
  });
  wakeQueue();
}

/** A file of a film for another one: the same where it lies elsewhere, else one in the other's folder. */
async function fileFor(id: string, film: Pick<FilmRow, "file">): Promise<string> {
  const source = sourceFile(film);
  if (!isKept(film.file)) return source;
  const file = join(filmFolder(id), basename(source));
  if (!existsSync(source)) return file;
  await shareFile(source, file);
  if (isClipList(source)) {
    const parts = filesInList(source).filter((part) => existsSync(part));
    for (const part of parts) await shareFile(part, join(filmFolder(id), basename(part)));
  }
  return file;
}

/** The clips that a film is made of for another one. */
async function clipsFor(id: string, clips: Project["clips"]): Promise<Project["clips"]> {
  const shared: Project["clips"] = [];
  for (const clip of clips) shared.push({ ...clip, file: storedPath(await fileFor(id, clip)) });
  return shared;
}

/** "Kite copy.mp4", and with a number if there is one already. */
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
 *
 * @returns its id
 * @throws Refusal as `saveProject` does
 */
export async function duplicateFilm(film: FilmRow): Promise<string> {
  requireAnalysed(film);
  return copyFilm(film, copyName(film.name));
}

/**
 * Makes another film of the same file, analysed as far as this one is.
 *
 * @param id of the new film
 */
export async function copyFilm(film: FilmRow, name: string, id = nanoid(10)): Promise<string> {
  const project = projectOf(db(), film, await fingerprint(film));
  const file = await fileFor(id, film);
  await noteFilm(id, name, file);
  if (existsSync(posterFile(film.id))) await copyFile(posterFile(film.id), posterFile(id));
  register(id, name, file, { ...project, clips: await clipsFor(id, project.clips) });
  return id;
}

async function readArchive(zip: OpenZip, name: string): Promise<Project> {
  const text = await zip.readText(DOCUMENT, MOST_DOCUMENT_BYTES);
  if (text === null) throw new FilmError(`${name}: there is no Glad Pan project in it.`);
  try {
    // Whatever it says of clips: their files are not in it, and what it names is not its own.
    return { ...(await apart("project", name, text)), clips: [] };
  } catch (error) {
    if (error instanceof ProjectError) throw new FilmError(`${name}: ${error.message}.`);
    throw error;
  }
}

/** A film of the library with this file. */
const filmWith = (known: string): FilmRow | undefined =>
  listFilms(db()).find((film) => film.fingerprint === known && !isMissing(film));

/** @throws FilmError if a file is not the film that is spoken of */
async function requireSame(file: string, name: string, info: FilmInfo): Promise<void> {
  const found = await probeFilm(file, name);
  const { picture, frames } = info.fields ? withFields(found) : found;
  if (frames === info.frames && picture.width === info.picture.width && picture.height === info.picture.height) return;
  throw new FilmError(`${name}: the film in this project is not the one it was made for.`);
}

/**
 * Opens saved work as a film of the library. Its file is taken out of the archive, or from a film that has the same;
 * where there is none, it is asked for.
 *
 * @param file the archive
 * @param name what the archive is called
 * @returns the film's id
 * @throws FilmError if it is no such archive
 */
export async function openProject(file: string, name: string): Promise<string> {
  const zip = await openZip(file).catch(() => {
    throw new FilmError(`${name}: this file is damaged or is not a Glad Pan project.`);
  });
  try {
    const project = await readArchive(zip, name);
    // yauzl gives no more of an entry than it is said to have.
    requireSpace(dataFolder(), DATA_FOLDER, zip.bytes, name);
    const id = nanoid(10);
    try {
      const title = filmNameOf(project.film.name);
      const inside = zip.names.find((entry) => SOURCE_NAME.test(entry));
      const source = await sourceOf(id, project, inside, zip);
      if (inside) await requireSame(source, title, project.film.info);
      await noteFilm(id, title, source);
      await takeOwn(zip);
      register(id, title, source, project);
      return id;
    } catch (error) {
      // What was taken out of it must not be taken for a film at the next start.
      await rm(filmFolder(id), { recursive: true, force: true });
      throw error;
    }
  } finally {
    zip.close();
  }
}

/** Where an opened film's file is; where it is going to be, if it is not there yet. */
async function sourceOf(id: string, { film }: Project, inside: string | undefined, zip: OpenZip): Promise<string> {
  if (inside) {
    const kept = join(filmFolder(id), inside);
    await writeAside(kept, (aside) => zip.extract(inside, aside));
    return kept;
  }
  const same = filmWith(film.fingerprint);
  return same ? fileFor(id, same) : join(filmFolder(id), `source${extname(filmNameOf(film.name)) || ".mp4"}`);
}

/** A film whose file is missing, and which is known by this one; undefined if there is none. */
async function filmWithout(file: string): Promise<FilmRow | undefined> {
  const waiting = listFilms(db()).filter((film) => film.fingerprint !== null && isMissing(film));
  if (waiting.length === 0) return undefined;
  const known = await fingerprintOf(file);
  return waiting.find((film) => film.fingerprint === known);
}

/** Gives a film whose file was missing its file again. */
async function giveSource(film: FilmRow, file: string, name: string, how: "move" | "link"): Promise<void> {
  const kept = how === "link" ? file : join(filmFolder(film.id), `source${extname(name) || ".mp4"}`);
  if (how === "move") await moveWhole(file, kept);
  await noteFilm(film.id, film.name, kept);
  inTransaction(db(), () => {
    setFile(db(), film.id, storedPath(kept));
    const hasCopy = listJobs(db(), film.id).some(({ kind }) => kind === "proxy");
    if (!hasCopy) insertJob(db(), { filmId: film.id, kind: "proxy" });
  });
  wakeQueue();
}

/**
 * Takes a file into the library, whatever it is: saved work is opened, the file of a film that misses it is given to
 * that film, and anything else is a new film.
 *
 * @param how whether the file is moved into the library, or stays where it is
 * @param styleId as `addFilm` takes it
 * @returns the film's id
 * @throws FilmError if it is neither saved work nor a film
 */
export async function takeIn(
  file: string,
  name: string,
  how: "move" | "link",
  styleId: string | null = null,
): Promise<string> {
  if (extname(name).toLowerCase() === PROJECT_EXTENSION) return openProject(file, name);
  const waiting = await filmWithout(file);
  if (waiting) {
    await giveSource(waiting, file, name, how);
    return waiting.id;
  }
  return how === "link" ? linkFilm(file, styleId) : addFilm(file, name, how, styleId);
}
