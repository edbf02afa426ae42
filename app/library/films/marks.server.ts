import { type MarkedThing, markedThings } from "~/core/subjects/marks/marked-things";
import { ledTrack } from "~/core/subjects/marks/guide";
import type { Track } from "~/core/subjects/tracking/track";
import { rangeKey } from "~/core/time/rate";
import type { Db } from "~/db/database.server";
import { findFilm } from "~/db/films.server";
import { insertJob, listJobs, ofKind } from "~/db/jobs.server";
import { listMarks, listMarkTracks, saveMarkTrack } from "~/db/marks.server";
import { listShots } from "~/db/shots.server";
import { decodeLight } from "~/media/decode-light.server";
import type { FilmFile } from "~/media/film-file";
import { followMarks, type FollowOptions } from "~/pipelines/follow-marks.server";
import { tracksOfShot } from "./shot-tracks.server";
import { proxyFolder } from "~/db/workplace.server";

/** The marked things of a film whose tracks have not been made yet. */
function untracked(db: Db, filmId: string): MarkedThing[] {
  const marks = listMarks(db, filmId);
  if (marks.length === 0) return [];
  const made = new Set(listMarkTracks(db, filmId).map(({ basis }) => basis));
  return listShots(db, filmId)
    .flatMap((shot) => markedThings(marks, shot))
    .filter(({ basis }) => !made.has(basis));
}

/** Stores the tracks of things that existing tracks determine, and returns those that must be followed. */
function notLed(db: Db, filmId: string, things: readonly MarkedThing[]): MarkedThing[] {
  const { info } = findFilm(db, filmId)!;
  // A shot may have a thousand marks, and its tracks take long to read.
  const found = new Map<string, Track[]>();
  return things.filter((thing) => {
    const shot = rangeKey(thing.shot);
    const tracks = found.get(shot) ?? tracksOfShot(db, filmId, thing.shot);
    found.set(shot, tracks);
    const track = ledTrack(thing, tracks, info.picture, info.rate);
    if (track) saveMarkTrack(db, filmId, thing.basis, track);
    return track === null;
  });
}

/**
 * Makes sure that everything marked is followed; called after every change.
 * @returns whether there are new jobs, for which the queue has to be woken
 */
export function followUntracked(db: Db, filmId: string): boolean {
  const open = listJobs(db, filmId).filter(({ state }) => state === "queued" || state === "running");
  const underWay = new Set(ofKind(open, "follow").map(({ work }) => work.asked.basis));
  const missing = untracked(db, filmId).filter(({ basis }) => !underWay.has(basis));
  const unled = missing.length > 0 ? notLed(db, filmId, missing) : [];
  for (const { basis } of unled) insertJob(db, { filmId, kind: "follow", asked: { basis } });
  return unled.length > 0;
}

/** Follows a marked thing through its shot, in the proxy where there is one. */
export async function followThing(
  db: Db,
  film: FilmFile,
  filmId: string,
  basis: string,
  options: Pick<FollowOptions, "onProgress" | "signal">,
): Promise<void> {
  const thing = untracked(db, filmId).find((other) => other.basis === basis);
  // If marks or cuts have changed since, another job follows them.
  if (!thing) return;
  const tracks = tracksOfShot(db, filmId, thing.shot);
  const decode = decodeLight(proxyFolder(filmId));
  saveMarkTrack(db, filmId, basis, await followMarks(film, thing, { ...options, tracks, decode }));
}
