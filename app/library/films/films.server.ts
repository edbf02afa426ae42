import { existsSync, readdirSync, readFileSync } from "node:fs";
import { readdir, rm, writeFile } from "node:fs/promises";
import { basename, join, parse } from "node:path";
import { nanoid } from "nanoid";
import { z } from "zod";
import { newVersion, type Version } from "~/core/version/film-state";
import { versionsOf } from "~/core/edits/preset";
import { shotId } from "~/core/shots/reshape";
import { freshShot } from "~/core/shots/shot";
import { saveShot } from "~/db/shots.server";
import { findPreset } from "~/db/presets.server";
import { inTransaction } from "~/db/database.server";
import {
  deleteFilm,
  type FilmRow,
  findFilm,
  hasFilm,
  insertFilm,
  type NewFilm,
  listFilms,
  setInfo,
} from "~/db/films.server";
import { deleteJob, insertJob, listJobs } from "~/db/jobs.server";
import { saveVersion } from "~/db/versions.server";
import { requireSpace } from "~/disk/disk-space.server";
import { copyWhole, moveWhole, writeAside } from "~/disk/write-aside.server";
import { withFields, withSound } from "~/media/film-choices";
import { extensionOf } from "~/media/containers";
import { requireNoList } from "~/media/film-tool.server";
import { straighten } from "~/media/straighten.server";
import { fingerprintOf } from "~/media/fingerprint.server";
import { probeFilm } from "~/media/probe.server";
import type { FilmInfo } from "~/core/film/film-info";
import { isId } from "~/core/basics/ids";
import { queueMaking } from "./queue-making.server";
import { filmNameOf } from "../uploads/uploads.server";
import {
  DATA_FOLDER,
  dataFolder,
  db,
  filmFolder,
  filmsFolder,
  isOwnCopy,
  proxyFolder,
  sourceFile,
  storedPath,
} from "~/db/workplace.server";
import { prepareFirstPiece, stopPieces } from "../proxy/proxy-pieces.server";
import { cancelJob, wakeQueue } from "~/queue/queue.server";

/** The note in a film's folder, from which the film is recovered if the database does not know it. */
const FilmNote = z.object({
  name: z.string(),
  /** Path of its file, if that is not in the folder. */
  linked: z.string().optional(),
  /** Name of its file there, if that is not "source". */
  kept: z.string().optional(),
});
type FilmNote = z.infer<typeof FilmNote>;
const noteFile = (folder: string): string => join(folder, "film.json");
/** Marks a film for removal, in case it is interrupted. */
const removedFile = (folder: string): string => join(folder, "removed");
const noteRemoval = (id: string): Promise<void> =>
  writeAside(removedFile(filmFolder(id)), (aside) => writeFile(aside, ""));

/** The first versions of a film: those of a preset, or one for phones. */
function firstVersions(presetId: string | null): Version[] {
  const newId = () => nanoid(10);
  const style = presetId === null ? null : findPreset(db(), presetId);
  if (style) return versionsOf(style, newId);
  return [newVersion({ id: newId(), name: "Vertical 9:16", width: 1080, height: 1920 })];
}

/** The note in a film's folder. */
function noteOf(folder: string): FilmNote | null {
  try {
    return FilmNote.parse(JSON.parse(readFileSync(noteFile(folder), "utf8")));
  } catch {
    return null;
  }
}

const writeNote = (id: string, note: FilmNote): Promise<void> =>
  writeAside(noteFile(filmFolder(id)), (aside) => writeFile(aside, JSON.stringify(note)));

/** Writes a film's present name into its folder. */
export const noteName = (id: string, name: string): Promise<void> => writeNote(id, { ...noteOf(filmFolder(id)), name });

/** Writes a film's name into its folder, and the path of its file if that is not there. */
export const noteFilm = (id: string, name: string, file: string): Promise<void> =>
  writeNote(id, { name, ...(isOwnCopy(storedPath(file)) ? { kept: basename(file) } : { linked: file }) });

/** Stores a new film, and queues its proxy and its analysis. To be called in a transaction. */
function storeFresh(film: NewFilm, presetId: string | null): void {
  const { id, info } = film;
  insertFilm(db(), film);
  for (const version of firstVersions(presetId)) saveVersion(db(), id, version);
  // Until shots are found, the film is a single one, which can be edited.
  saveShot(db(), id, freshShot(shotId(id, 0, new Set()), { start: 0, end: info.frames }, null));
  queueMaking(film);
}

/** Adds a film whose file is in its folder to the library, and queues its proxy and its analysis. */
async function register(
  id: string,
  name: string,
  file: string,
  info: FilmInfo,
  presetId: string | null = null,
): Promise<void> {
  const fingerprint = await fingerprintOf(file);
  inTransaction(db(), () => storeFresh({ id, name, file: storedPath(file), info, fingerprint }, presetId));
  wakeQueue();
}

/**
 * Adds a file to the library: probes it, moves it there or leaves it, and queues its proxy and its analysis. Its first
 * versions are made at once.
 * @param presetId the preset of these versions; one for phones if null, or if it no longer exists
 * @throws FilmError if it is no film; the file then stays where it is
 */
export async function addFilm(
  file: string,
  name: string,
  how: "move" | "copy" | "link",
  presetId: string | null = null,
): Promise<string> {
  requireNoList(file, name);
  const info = await probeFilm(file, name);
  const id = nanoid(10);
  const folder = filmFolder(id);
  const isLinked = how === "link" && !info.timeBreaks;
  await writeNote(id, { name, ...(isLinked ? { linked: file } : {}) });
  if (info.timeBreaks) {
    const kept = join(folder, "source.mkv");
    requireSpace(dataFolder(), DATA_FOLDER, info.bytes, name);
    await straighten(file, name, kept);
    if (how === "move") await rm(file);
    await register(id, name, kept, await probeFilm(kept, name), presetId);
  } else {
    const kept = isLinked ? file : join(folder, `source${extensionOf(info)}`);
    if (how === "move") await moveWhole(file, kept);
    if (how === "copy") await copyWhole(file, kept);
    await register(id, name, kept, info, presetId);
  }
  prepareFirstPiece(findFilm(db(), id)!);
  return id;
}

/**
 * Adds a film of this machine to the library and leaves its file where it is. One that is there already is not added again.
 * @param file its absolute path
 * @param presetId as in `addFilm`
 * @returns its id
 * @throws FilmError if it is no film
 */
export async function linkFilm(file: string, presetId: string | null = null): Promise<string> {
  const known = listFilms(db()).find((film) => sourceFile(film) === file && film.deletedAt === null);
  return known?.id ?? addFilm(file, filmNameOf(basename(file)), "link", presetId);
}

/**
 * Selects another of a film's audio tracks.
 * @param index from 0
 * @throws Refusal if there is no such track
 */
export async function changeSound(film: FilmRow, index: number): Promise<void> {
  // First, so that a piece that is requested meanwhile has the new sound already.
  setInfo(db(), film.id, withSound(film.info, index));
  const jobs = listJobs(db(), film.id).filter(({ kind }) => kind === "proxy");
  await stopJobs(film.id, jobs);
  await rm(proxyFolder(film.id), { recursive: true, force: true });
  inTransaction(db(), () => {
    for (const job of jobs) deleteJob(db(), job.id);
    insertJob(db(), { filmId: film.id, kind: "proxy" });
  });
  wakeQueue();
}

/** Stops a film's jobs, and pieces being made that somebody waits for. */
export async function stopJobs(filmId: string, jobs = listJobs(db(), filmId)): Promise<void> {
  await stopPieces(filmId);
  await Promise.all(jobs.map((job) => cancelJob(job.id)));
}

/**
 * Uses an interlaced film at double rate, as if it had just been added.
 * @throws Refusal if it is not interlaced
 */
export async function useFields(film: FilmRow): Promise<void> {
  const info = withFields(film.info);
  await stopJobs(film.id);
  await rm(proxyFolder(film.id), { recursive: true, force: true });
  inTransaction(db(), () => {
    deleteFilm(db(), film.id);
    storeFresh({ ...film, info }, null);
  });
  wakeQueue();
}

/** Removes a film with everything made from it; false if there is none with this id. */
export async function removeFilm(id: string): Promise<boolean> {
  if (!hasFilm(db(), id)) return false;
  await noteRemoval(id);
  await stopJobs(id);
  deleteFilm(db(), id);
  await rm(filmFolder(id), { recursive: true, force: true });
  return true;
}

/**
 * Lets `work` make a film in several steps, all or none of which take effect: remains of a failure are removed, and those
 * of a killed server at the next start.
 * @param id of the film
 */
export async function wholeOrNothing<T>(id: string, work: () => Promise<T>): Promise<T> {
  await noteRemoval(id);
  try {
    const result = await work();
    await rm(removedFile(filmFolder(id)));
    return result;
  } catch (error) {
    if (!(await removeFilm(id))) await rm(filmFolder(id), { recursive: true, force: true });
    throw error;
  }
}

/** Present folders of films. */
export const filmFolders = (): string[] =>
  !existsSync(filmsFolder())
    ? []
    : readdirSync(filmsFolder(), { withFileTypes: true }).flatMap((entry) => (entry.isDirectory() ? entry.name : []));

/** Whether there is a film in the data folder, known to the library or not. */
export const hasFilmFolders = (): boolean =>
  filmFolders().some((id) => isId(id) && !existsSync(removedFile(filmFolder(id))));

/** Removes films from the library whose removal was interrupted: they are never shown again. Their folders follow later. */
export function forgetRemoved(): void {
  for (const id of filmFolders()) if (existsSync(removedFile(filmFolder(id)))) deleteFilm(db(), id);
}

/**
 * Reconciles the films' folders with the library after a server was killed, or a backup was restored: finishes removals,
 * recovers films that the library does not know, and removes folders without a film.
 * @param ids folders of films left by an ended server; those being made by this one are unfinished
 * @returns number of films recovered
 */
export async function reconcileFilms(ids: readonly string[]): Promise<number> {
  let count = 0;
  for (const id of ids) {
    const folder = filmFolder(id);
    if (hasFilm(db(), id)) continue;
    const files = await readdir(folder);
    if (files.includes("removed")) {
      await rm(folder, { recursive: true, force: true });
      continue;
    }
    const note = noteOf(folder);
    const source = files.find((file) => file === note?.kept) ?? files.find((file) => parse(file).name === "source");
    if (!source && !note?.linked) {
      await rm(folder, { recursive: true, force: true });
      continue;
    }
    const file = source ? join(folder, source) : note!.linked!;
    const name = note?.name ?? `Recovered film${parse(file).ext}`;
    const info = await probeFilm(file, name).catch(() => null);
    // An unreadable film is left where it is: its file may be the only copy.
    if (!info) continue;
    await register(id, name, file, info);
    count++;
  }
  return count;
}
