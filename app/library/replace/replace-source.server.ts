/** Replaces a film's file with a new export: compares the two, moves all work over, and can restore the earlier one. */
import { rm } from "node:fs/promises";
import { extname, join } from "node:path";
import { nanoid } from "nanoid";
import { DAYS_KEPT } from "~/core/film/days-kept";
import { type FilmInfo, clockOfFilm } from "~/core/film/film-info";
import type { FilmState } from "~/core/version/film-state";
import { moveWork } from "~/core/edits/move-work";
import { Refusal } from "~/core/basics/refusal";
import { lostBetween, type Replacement } from "~/core/film/replacement";
import { movedParts, type ShotMatch } from "~/core/shots/match-shots";
import { framesIn, framesPerSecond } from "~/core/time/rate";
import { joinRanges } from "~/core/time/ranges";
import { inTransaction } from "~/db/database.server";
import { hasClips } from "~/db/clips.server";
import { loadState } from "~/db/film-state.server";
import { type FilmRow, findFilm } from "~/db/films.server";
import { deleteJob, insertJob, isAnalysed, listJobs, type JobRow, ofKind } from "~/db/jobs.server";
import { listPeople } from "~/db/people.server";
import { projectOf, putInPlace, workOf } from "~/db/projects.server";
import {
  forgetReplaced,
  hasReplaced,
  keepReplaced,
  lastReplaced,
  replacedBefore,
  restoreHistory,
} from "~/db/replaced-sources.server";
import { moveWhole } from "~/disk/write-aside.server";
import { fingerprintOf } from "~/media/fingerprint.server";
import { FilmError, requireNoList } from "~/media/film-tool.server";
import { probeFilm } from "~/media/probe.server";
import { jobView } from "../films/film-status.server";
import { clearParts, usesFile } from "../clips/clips.server";
import { stopJobs } from "../films/films.server";
import { makeAgain } from "../films/make-again.server";
import type { WorkOf } from "~/db/job-work";
import { wakeQueue } from "~/queue/queue.server";
import { tracksByShot } from "../films/shot-tracks.server";
import { db, filmFolder, isOwnCopy, sourceFile, storedPath } from "~/db/workplace.server";
import { libraryErrors } from "~/texts/library-errors";

const t = libraryErrors.replace;

const DAY_MS = 24 * 60 * 60 * 1000;

const comparisons = (filmId: string): JobRow[] => listJobs(db(), filmId).filter(({ kind }) => kind === "match");

/** Removes a new export that will not be used, if it is in the library. */
async function discard({ asked: { file } }: WorkOf<"match">): Promise<void> {
  if (isOwnCopy(file)) await rm(sourceFile({ file }), { force: true });
}

/** Cancels a comparison, or discards its result; nothing is changed. */
export async function giveUpReplacement({ id }: FilmRow): Promise<void> {
  const jobs = comparisons(id);
  await stopJobs(id, jobs);
  for (const { work } of ofKind(jobs, "match")) await discard(work);
  for (const job of jobs) deleteJob(db(), job.id);
}

/**
 * Begins to compare a film with a new export of it.
 * @param how whether the export is moved into the library, or stays where it is
 * @throws FilmError if it is no film; Refusal while the film is still analysed
 */
export async function beginReplacement(film: FilmRow, file: string, name: string, how: "move" | "link"): Promise<void> {
  if (!isAnalysed(db(), film.id)) {
    throw new Refusal(t.stillAnalysed);
  }
  if (hasClips(db(), film.id)) {
    throw new Refusal(t.madeOfClips);
  }
  requireNoList(file, name);
  const info = await probeFilm(file, name);
  if (info.timeBreaks) throw new FilmError(`${name}: ${t.timestampsRestart}`);
  await giveUpReplacement(film);
  const id = nanoid(10);
  const kept = how === "link" ? file : join(filmFolder(film.id), `source-${id}${extname(name) || ".mp4"}`);
  if (how === "move") await moveWhole(file, kept);
  insertJob(db(), { id, filmId: film.id, kind: "match", asked: { file: storedPath(kept), name, info } });
  wakeQueue();
}

/** A finished comparison of a film's file. */
function comparisonOf({ id }: FilmRow) {
  const compared = ofKind(comparisons(id), "match").at(-1);
  if (!compared?.work.result) return null;
  const { job, work } = compared;
  return { job, asked: work.asked, matches: work.result!.matches };
}

/** A film's state with a new export in place of its file. */
function moved(film: FilmRow, state: FilmState, info: FilmInfo, matches: readonly ShotMatch[]): FilmState {
  const { picture, frames } = info;
  const facts = { id: film.id, frames, picture, clock: clockOfFilm(info), candidates: [], analysed: false };
  const ratio = framesPerSecond(info.rate) / framesPerSecond(film.info.rate);
  const tracksOf = tracksByShot(db(), film.id, state.shots);
  const tracking = { rename: () => null, tracksOf, newId: () => nanoid(8) };
  return moveWork(state, facts, movedParts(state.shots, matches), ratio, tracking);
}

const shapeOf = ({ picture }: FilmInfo): number => picture.width / picture.height;

/** Progress of a replacement, and what it would change. */
export function replacementOf(film: FilmRow): Replacement {
  const job = comparisons(film.id).at(-1);
  const compared = comparisonOf(film);
  const hasEarlier = hasReplaced(db(), film.id);
  if (!compared) return { job: job ? jobView(job) : null, found: null, hasEarlier };
  const { asked, matches } = compared;
  const state = loadState(db(), film);
  const byId = new Map(matches.map((match) => [match.id, match]));
  const shots = state.shots.flatMap(({ id, name, start, end }, i) => {
    const match = byId.get(id);
    return match ? [{ ...match, number: i + 1, name, start, end }] : [];
  });
  const there = joinRanges(matches.flatMap(({ range }) => range ?? []));
  return {
    job: job ? jobView(job) : null,
    found: {
      name: asked.name,
      shots,
      lost: lostBetween(state, moved(film, state, asked.info, matches)),
      newFrames: asked.info.frames - framesIn(there),
      isReshaped: Math.abs(shapeOf(asked.info) / shapeOf(film.info) - 1) > 0.01,
    },
    hasEarlier,
  };
}

/**
 * Replaces a film's file with the new export that it was compared with, with all work on it. The film before is stored.
 * @throws Refusal if the film has changed in between, or was not compared with anything
 */
export async function replaceSource(film: FilmRow): Promise<void> {
  const compared = comparisonOf(film);
  if (!compared) throw new Refusal(t.nothingCompared);
  const { asked, matches } = compared;
  const { file, info } = asked;
  const before = film.fingerprint ?? "unknown";
  const fingerprint = await fingerprintOf(sourceFile({ file }));
  await stopJobs(film.id);
  inTransaction(db(), () => {
    const state = loadState(db(), film);
    const known = new Set(matches.map(({ id }) => id));
    if (state.shots.some(({ id }) => !known.has(id))) {
      throw new Refusal(t.compareAgain);
    }
    const people = listPeople(db(), film.id);
    const after = moved(film, state, info, matches);
    keepReplaced(db(), film.id, film.file, projectOf(db(), film, before));
    putInPlace(db(), film.id, file, workOf(after, { ...film, info, fingerprint }, people));
  });
  await makeAgain(film);
}

/**
 * Restores a film's earlier file, with the work and the history of then.
 * @throws Refusal if it has none
 */
export async function putEarlierBack(film: FilmRow): Promise<void> {
  const earlier = lastReplaced(db(), film.id);
  if (!earlier) throw new Refusal(t.notReplaced);
  await stopJobs(film.id);
  inTransaction(db(), () => {
    const { project, file, replacedAt } = earlier;
    putInPlace(db(), film.id, file, project);
    restoreHistory(db(), film.id, earlier);
    forgetReplaced(db(), film.id, replacedAt);
  });
  await makeAgain(film);
  if (isOwnCopy(film.file) && !usesFile(findFilm(db(), film.id)!, film.file))
    await rm(sourceFile(film), { force: true });
  await clearParts(film.id);
}

/** Removes files that were replaced too long ago to be restored. */
export async function purgeReplaced(now = Date.now()): Promise<void> {
  for (const { filmId, replacedAt, file } of replacedBefore(db(), now - DAYS_KEPT * DAY_MS)) {
    forgetReplaced(db(), filmId, replacedAt);
    const film = findFilm(db(), filmId);
    if (isOwnCopy(file) && film && !usesFile(film, file)) await rm(sourceFile({ file }), { force: true });
    await clearParts(filmId);
  }
}
