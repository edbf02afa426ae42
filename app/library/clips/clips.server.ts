/** Films of several clips: joined, and rearranged with all work kept. */
import { existsSync } from "node:fs";
import { readdir, rm } from "node:fs/promises";
import { extname, join } from "node:path";
import { nanoid } from "nanoid";
import { arrange, arrangedState, type Arrangement, type WantedClip } from "~/core/clips/arrange";
import type { ClipWithFile } from "~/core/clips/clip";
import type { TakenFilm } from "~/core/clips/take-work";
import { moveFindings } from "~/core/clips/move-findings";
import { brokenInvariant } from "~/core/edits/invariants";
import { Move } from "~/core/edits/move";
import type { Project } from "~/core/formats/project";
import { wholeOf } from "~/core/geometry/box";
import { Refusal } from "~/core/basics/refusal";
import { inTransaction } from "~/db/database.server";
import { hasClips, listClips } from "~/db/clips.server";
import { loadState } from "~/db/film-state.server";
import { type FilmRow, findFilm } from "~/db/films.server";
import { projectOf, putInPlace, workOf } from "~/db/projects.server";
import { filesReplaced, keepReplaced } from "~/db/replaced-sources.server";
import { shareFile } from "~/disk/write-aside.server";
import { filesInList, isClipList, listName, writeClipList } from "~/media/clip-list.server";
import { fingerprintOf } from "~/media/fingerprint.server";
import { clipFormat } from "~/media/join-clips.server";
import { partName } from "./conform-clips.server";
import { stopJobs, wholeOrNothing } from "../films/films.server";
import { renameFilm } from "../films/keep-films.server";
import { makeAgain } from "../films/make-again.server";
import { copyFilm } from "../projects/copy-film.server";
import { tracksByShot } from "../films/shot-tracks.server";
import { db, filmFolder, isOwnCopy, sourceFile, storedPath } from "~/db/workplace.server";
import { libraryErrors } from "~/texts/library-errors";

const t = libraryErrors.clips;

/** A clip wanted in a film: one of its own, with or without another file in its place, or a new one. */
export interface ClipChoice {
  /** Of an existing clip; null for a new one. */
  clipId: string | null;
  /** The film whose file it is made from; null for the present one. */
  filmId: string | null;
}

const MOST_CLIPS = 500;

/** The clips of a film; a film that is one file is its own only clip. */
export function clipsOf({ id, name, file, info }: FilmRow): ClipWithFile[] {
  const clips = listClips(db(), id);
  if (clips.length > 0) return clips;
  const whole = { start: 0, end: info.frames, in: null, out: null, area: wholeOf(info.picture) };
  return [{ id, name, file, info, ...whole }];
}

/** A clip made from a film of the library, whose file stays where it is or is shared. */
async function clipFrom(filmId: string, folderOf: string, clipId: string): Promise<WantedClip> {
  const film = findFilm(db(), filmId);
  if (!film || film.deletedAt !== null) throw new Refusal(t.filmIsGone);
  const source = sourceFile(film);
  if (isClipList(source)) throw new Refusal(t.isMadeOfClips(film.name));
  if (!existsSync(source)) throw new Refusal(t.fileIsMissing(film.name));
  const { name, info } = film;
  if (!isOwnCopy(film.file)) return { id: clipId, name, file: source, info, in: null, out: null };
  const shared = join(filmFolder(folderOf), `source-clip-${nanoid(10)}${extname(source)}`);
  await shareFile(source, shared);
  return { id: clipId, name, file: storedPath(shared), info, in: null, out: null };
}

async function wantedClips(film: FilmRow, choices: readonly ClipChoice[]): Promise<WantedClip[]> {
  const has = new Map(clipsOf(film).map((clip) => [clip.id, clip]));
  if (choices.length === 0) throw new Refusal(t.needsOne);
  if (choices.length > MOST_CLIPS) throw new Refusal(t.atMost(MOST_CLIPS));
  const wanted: WantedClip[] = [];
  for (const { clipId, filmId } of choices) {
    const clip = clipId === null ? undefined : has.get(clipId);
    if (clipId !== null && !clip) throw new Refusal(t.clipIsGone);
    if (clip && wanted.some(({ id }) => id === clip.id)) throw new Refusal(t.onlyOnce);
    if (filmId === null && !clip) throw new Refusal(t.mustBeAFilm);
    if (filmId === null) wanted.push(clip!);
    else {
      const made = await clipFrom(filmId, film.id, clip?.id ?? nanoid(10));
      wanted.push(clip ? { ...made, in: clip.in, out: clip.out } : made);
    }
  }
  return wanted;
}

/** A film's state, and how its subjects are tracked further. */
function stateWithTracks(film: FilmRow): Pick<TakenFilm, "state" | "tracking"> {
  const state = loadState(db(), film);
  const tracksOf = tracksByShot(db(), film.id, state.shots);
  return { state, tracking: { tracksOf, newId: () => nanoid(8) } };
}

/** Films that newly become clips of another, with the work on them. */
function takenFilms(choices: readonly ClipChoice[], clips: readonly ClipWithFile[]): TakenFilm[] {
  return choices.flatMap(({ clipId, filmId }, i) => {
    const film = clipId === null && filmId !== null ? findFilm(db(), filmId) : null;
    return film ? [{ clip: clips[i]!, ...stateWithTracks(film) }] : [];
  });
}

/** All work on a film, and its findings, in another arrangement of its clips. */
function arrangedProject(
  film: FilmRow,
  before: Project,
  to: Arrangement,
  taken: readonly TakenFilm[],
  fingerprint: string,
): Project {
  const { state, tracking } = stateWithTracks(film);
  const after = arrangedState(state, to, tracking, taken);
  const move = new Move(to.known, to.ratio, film.info.picture, to.info.picture);
  const { candidates, tracks, undecoded, activity } = before.analysis;
  const known = activity === "" ? null : Buffer.from(activity, "base64");
  const found = moveFindings({ candidates, tracks, undecoded, activity: known }, to.known, move, to.info.frames);
  const described = { name: film.name, info: to.info, fingerprint, sensitivity: film.sensitivity };
  return {
    ...workOf(after, described, before.people, to.clips),
    analysis: {
      ...found,
      markTracks: [],
      activity: found.activity ? Buffer.from(found.activity).toString("base64") : "",
    },
  };
}

/**
 * Rearranges the clips of a film, or makes it of others, with all work on the kept ones. The earlier arrangement is stored,
 * and can be restored.
 * @throws Refusal if there are no such clips, or a film for a clip cannot be used
 */
export async function arrangeClips(film: FilmRow, choices: readonly ClipChoice[], keepsEarlier = true): Promise<void> {
  const isJoined = hasClips(db(), film.id);
  const wanted = await wantedClips(film, choices);
  const before = { rate: film.info.rate, clips: clipsOf(film) };
  const to = arrange(before, wanted, isJoined ? film.info.rate : null, clipFormat);
  const list = join(filmFolder(film.id), listName(nanoid(10)));
  const parts = to.clips.map((clip) => ({ name: partName(clip, to.info), frames: clip.end - clip.start }));
  await writeClipList(list, parts, to.info.rate);
  const fingerprint = await fingerprintOf(list);
  await stopJobs(film.id);
  inTransaction(db(), () => {
    const project = projectOf(db(), film, film.fingerprint ?? "unknown");
    const arranged = arrangedProject(film, project, to, takenFilms(choices, to.clips), fingerprint);
    if (keepsEarlier) keepReplaced(db(), film.id, film.file, project);
    putInPlace(db(), film.id, storedPath(list), arranged);
    const broken = brokenInvariant(loadState(db(), findFilm(db(), film.id)!), to.info.frames);
    if (broken) throw new Refusal(t.cannotArrange(broken));
  });
  await makeAgain(film);
  if (!keepsEarlier) await clearParts(film.id);
}

/**
 * Joins several films of the library, which stay as they are, into one with the work on them.
 * @param name of the joined film
 * @returns its id
 * @throws Refusal as in `arrangeClips`
 */
export async function joinFilms(filmIds: readonly string[], name: string): Promise<string> {
  const [firstId, ...others] = filmIds;
  const first = firstId === undefined ? null : findFilm(db(), firstId);
  if (!first || others.length === 0) throw new Refusal(t.selectTwo);
  const id = nanoid(10);
  return wholeOrNothing(id, async () => {
    // Its first clip has that film's name.
    await copyFilm(first, first.name, id);
    const own = clipsOf(findFilm(db(), id)!).map((clip) => ({ clipId: clip.id, filmId: null }));
    const choices = [...own, ...others.map((filmId) => ({ clipId: null, filmId }))];
    await arrangeClips(findFilm(db(), id)!, choices, false);
    await renameFilm(findFilm(db(), id)!, name);
    return id;
  });
}

/** Whether a film, or one of its clips, is made from a file. */
export const usesFile = (film: FilmRow, file: string): boolean =>
  film.file === file || listClips(db(), film.id).some((clip) => clip.file === file);

/** Removes files of former clips that no film can be made from any more. */
export async function clearParts(filmId: string): Promise<void> {
  const film = findFilm(db(), filmId);
  if (!film) return;
  const needed = [film.file, ...listClips(db(), filmId).map(({ file }) => file), ...filesReplaced(db(), filmId)];
  const files = needed.map((file) => sourceFile({ file }));
  const lists = files.filter((file) => isClipList(file) && existsSync(file));
  const used = new Set([...files, ...lists.flatMap(filesInList)]);
  const folder = filmFolder(filmId);
  for (const name of await readdir(folder).catch(() => [])) {
    const isOurs = name.startsWith("source-part-") || name.startsWith("source-clip-") || isClipList(name);
    if (isOurs && !used.has(join(folder, name))) await rm(join(folder, name), { force: true });
  }
}
