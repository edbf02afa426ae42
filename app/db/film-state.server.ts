import type { Clip, ClipWithFile } from "~/core/clips/clip";
import type { Difference } from "~/core/edits/difference";
import type { FilmState } from "~/core/version/film-state";
import { clockOfFilm } from "~/core/film/film-info";
import { findCandidates } from "./analysis.server";
import { deleteCaption, listCaptions, putCaption } from "./captions.server";
import { listClips, trimClip } from "./clips.server";
import type { Db } from "./database.server";
import { type FilmRow, setAttention, setSensitivity } from "./films.server";
import { isAnalysed } from "./jobs.server";
import { listMarks, listTrackEdits, putMark, putTrackEdit } from "./marks.server";
import { changePerson, listPeople } from "./people.server";
import { readable } from "./readable";
import { deleteShot, listShots, saveShot } from "./shots.server";
import {
  deleteHandKey,
  keepVersions,
  listHandKeys,
  listShotsInVersion,
  listVersions,
  saveVersion,
  setHandKey,
  setShotInVersion,
} from "./versions.server";

/**
 * The stored state of a film.
 * @throws UnreadableFilm if some of it cannot be read
 */
export const loadState = (db: Db, film: FilmRow): FilmState => readable(film.name, () => readState(db, film));

function readState(db: Db, { id, info, sensitivity, attention }: FilmRow): FilmState {
  return {
    film: {
      id,
      frames: info.frames,
      picture: info.picture,
      clock: clockOfFilm(info),
      candidates: findCandidates(db, id),
      analysed: isAnalysed(db, id),
    },
    sensitivity,
    attention,
    shots: listShots(db, id),
    clips: listClips(db, id).map(clipOf),
    versions: listVersions(db, id).map((version) => ({
      ...version,
      shots: listShotsInVersion(db, version.id),
      handKeys: listHandKeys(db, version.id),
    })),
    marks: listMarks(db, id),
    people: listPeople(db, id).map(({ id, number, name, mergedInto }) => ({ id, number, name, mergedInto })),
    trackEdits: listTrackEdits(db, id),
    captions: listCaptions(db, id),
  };
}

/** The part of a clip that editing needs. */
const clipOf = ({ id, name, start, end, in: first, out, area, info }: ClipWithFile): Clip => ({
  id,
  name,
  start,
  end,
  in: first,
  out,
  area,
  picture: info.picture,
});

/** Stores the difference between the stored state and another. To be called in a transaction. */
export function storeDifference(db: Db, filmId: string, difference: Difference): void {
  const { sensitivity, attention, versions, shots, inVersions = [], handKeys = [] } = difference;
  if (sensitivity !== undefined) setSensitivity(db, filmId, sensitivity);
  if (attention) setAttention(db, filmId, attention);
  if (versions) {
    for (const version of versions.put) saveVersion(db, filmId, version);
    keepVersions(db, filmId, versions.order);
  }
  if (shots) {
    for (const id of shots.removed) deleteShot(db, id);
    for (const shot of shots.put) saveShot(db, filmId, shot);
  }
  for (const { versionId, shotId, says } of inVersions) setShotInVersion(db, versionId, shotId, says);
  for (const { versionId, pane, removed, put } of handKeys) {
    for (const frame of removed) deleteHandKey(db, versionId, pane, frame);
    for (const key of put) setHandKey(db, versionId, key);
  }
  for (const clip of difference.clips ?? []) trimClip(db, filmId, clip);
  for (const { thing, frame, box } of difference.marks ?? []) putMark(db, filmId, thing, frame, box);
  for (const person of difference.people ?? []) changePerson(db, filmId, person);
  for (const { trackId, edit } of difference.trackEdits ?? []) putTrackEdit(db, filmId, trackId, edit);
  for (const id of difference.captions?.removed ?? []) deleteCaption(db, filmId, id);
  for (const caption of difference.captions?.put ?? []) putCaption(db, filmId, caption);
}
