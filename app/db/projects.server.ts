import { packActivity, unpackActivity } from "~/core/activity/activity";
import type { Project } from "~/core/formats/project";
import { joinRanges } from "~/core/time/ranges";
import type { FilmState } from "~/core/version/film-state";
import { unpackTrack } from "~/core/subjects/tracking/packed-tracks";
import { readActivity, saveActivity } from "./activity.server";
import {
  findCandidates,
  listAnalysed,
  listUndecoded,
  readTracks,
  saveTracks,
  saveTransitions,
  saveUndecoded,
} from "./analysis.server";
import { putCaption } from "./captions.server";
import { insertClip, listClips } from "./clips.server";
import type { Db } from "./database.server";
import { loadState } from "./film-state.server";
import {
  type FilmRow,
  insertFilm,
  type NewFilm,
  raiseFindings,
  raiseRevision,
  setFile,
  setFingerprint,
  setInfo,
  setAttention,
  setSensitivity,
} from "./films.server";
import { findMarkTrackById, listMarkTracks, putMark, putTrackEdit, saveMarkTrack } from "./marks.server";
import { changePerson, listPeople, savePeople } from "./people.server";
import { saveShot } from "./shots.server";
import { saveVersion, setHandKey, setShotInVersion } from "./versions.server";

/**
 * The settings of a film, as a project stores them.
 * @param clips of the film; left out where it is one file
 */
export const workOf = (
  state: FilmState,
  film: Omit<Project["film"], "attention">,
  people: Project["people"],
  clips: Project["clips"] = [],
): Omit<Project, "analysis"> => ({
  format: "glad-pan/project",
  version: 2,
  film: { ...film, attention: state.attention },
  clips,
  shots: [...state.shots],
  versions: state.versions.map(({ shots, handKeys, ...version }) => ({
    ...version,
    shots: [...shots].map(([shotId, says]) => ({ shotId, says })),
    handKeys: [...handKeys],
  })),
  marks: [...state.marks],
  people,
  trackEdits: [...state.trackEdits].map(([trackId, edit]) => ({ trackId, edit })),
  captions: [...state.captions],
});

/**
 * All stored data of an analysed film.
 * @throws UnreadableFilm if some of it cannot be read
 */
export function projectOf(db: Db, film: FilmRow, fingerprint: string): Project {
  const { id, name, info, sensitivity } = film;
  const state = loadState(db, film);
  const activity = readActivity(db, id, info.frames);
  return {
    ...workOf(state, { name, info, fingerprint, sensitivity }, listPeople(db, id), listClips(db, id)),
    analysis: {
      candidates: findCandidates(db, id),
      tracks: listAnalysed(db, id).map((range) => ({ range, tracks: readTracks(db, id, range) })),
      markTracks: listMarkTracks(db, id).flatMap((track) => findMarkTrackById(db, id, track.id) ?? []),
      undecoded: listUndecoded(db, id),
      activity: activity ? Buffer.from(packActivity(activity)).toString("base64") : "",
    },
  };
}

/** Stores a film with all data of a project, whose ids must be unused. To be called in a transaction. */
export function insertProject(db: Db, film: NewFilm, project: Project): void {
  insertFilm(db, film);
  insertWork(db, film.id, project);
  insertAnalysis(db, film.id, project);
}

/** Tables of settings and findings of a film. */
const WORK = ["clips", "shots", "versions", "marks", "people", "track_edits", "captions", "edits", "checkpoints"];
const FOUND = [
  "transition_candidates",
  "analysis_chunks",
  "shot_tracks",
  "mark_tracks",
  "undecoded_frames",
  "activity",
];

/** Deletes all settings and findings of a film; the film itself, its jobs and its renders stay. */
function clearFilm(db: Db, filmId: string): void {
  for (const table of [...WORK, ...FOUND]) db.prepare(`DELETE FROM ${table} WHERE film_id = ?`).run(filmId);
}

/**
 * Replaces a film's file, with work on the new one and, where known, its findings. To be called in a transaction.
 * @param file as it is stored with the film
 */
export function putInPlace(
  db: Db,
  id: string,
  file: string,
  { analysis, ...work }: Omit<Project, "analysis"> & Partial<Pick<Project, "analysis">>,
): void {
  const { film } = work;
  clearFilm(db, id);
  insertWork(db, id, work);
  if (analysis) insertAnalysis(db, id, { film, analysis });
  setInfo(db, id, film.info);
  setFile(db, id, file);
  setFingerprint(db, id, film.fingerprint);
  raiseRevision(db, id);
  raiseFindings(db, id);
}

/** Stores the settings of a film that has none. */
export function insertWork(db: Db, id: string, project: Omit<Project, "analysis">): void {
  const { versions, marks, people } = project;
  setSensitivity(db, id, project.film.sensitivity);
  setAttention(db, id, project.film.attention);
  for (const clip of project.clips) insertClip(db, id, clip);
  for (const shot of project.shots) saveShot(db, id, shot);
  for (const { shots, handKeys, ...version } of versions) {
    saveVersion(db, id, version);
    for (const { shotId, says } of shots) setShotInVersion(db, version.id, shotId, says);
    for (const key of handKeys) setHandKey(db, version.id, key);
  }
  for (const { thing, frame, box } of marks) putMark(db, id, thing, frame, box);
  savePeople(db, id, people);
  for (const person of people) changePerson(db, id, person);
  for (const { trackId, edit } of project.trackEdits) putTrackEdit(db, id, trackId, edit);
  for (const caption of project.captions) putCaption(db, id, caption);
}

/** Stores the findings of a film that has none. */
export function insertAnalysis(db: Db, id: string, { film, analysis }: Pick<Project, "film" | "analysis">): void {
  saveTransitions(db, id, { candidates: analysis.candidates, settled: film.info.frames });
  for (const { range, tracks } of analysis.tracks) saveTracks(db, id, range, tracks.map(unpackTrack));
  for (const { basis, track } of analysis.markTracks) saveMarkTrack(db, id, basis, unpackTrack(track));
  saveUndecoded(db, id, joinRanges(analysis.undecoded));
  const activity = Buffer.from(analysis.activity, "base64");
  if (activity.length > 0) saveActivity(db, id, { start: 0, end: film.info.frames }, unpackActivity(activity));
}
