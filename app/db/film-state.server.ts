import type { FilmState } from "~/core/edits/film-state";
import type { Db } from "./database.server";
import { findFilm } from "./films.server";
import { listMarks, listTrackEdits } from "./marks.server";
import { listPeople } from "./people.server";
import { listShots } from "./shots.server";
import { listFramings, listHandKeys, listVersions } from "./versions.server";

/** All that can be edited of a film, as it is stored. */
export function filmState(db: Db, filmId: string): FilmState {
  const { frames, picture } = findFilm(db, filmId)!.info;
  return {
    frames,
    picture,
    shots: listShots(db, filmId),
    versions: listVersions(db, filmId).map((version) => ({
      ...version,
      framings: listFramings(db, version.id),
      handKeys: listHandKeys(db, version.id),
    })),
    marks: listMarks(db, filmId),
    people: listPeople(db, filmId).map(({ id, mergedInto }) => ({ id, mergedInto })),
    trackEdits: listTrackEdits(db, filmId),
  };
}
