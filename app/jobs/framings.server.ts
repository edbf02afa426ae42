import { shotFraming, shotSettings } from "~/core/edits/path-inputs";
import { Refusal } from "~/core/refusal";
import type { ShotFraming } from "~/core/path/shot-framing";
import type { Db } from "~/db/database.server";
import { loadState } from "~/db/film-state.server";
import type { FilmRow } from "~/db/films.server";
import { tracksOfShots } from "./shot-tracks.server";

/**
 * Everything that decides the paths of a version, shot by shot, and which shots are left out of it.
 *
 * @throws Refusal if the film has no such version
 */
export function loadFramings(db: Db, film: FilmRow, versionId: string): (ShotFraming & { excluded: boolean })[] {
  const { shots, versions } = loadState(db, film);
  const version = versions.find(({ id }) => id === versionId);
  if (!version) throw new Refusal("this version is not there any more");
  const tracks = tracksOfShots(db, film.id, shots);
  return shotSettings(shots, version).map((settings, i) => ({
    ...shotFraming(settings, tracks[i]!),
    excluded: settings.shot.excluded,
  }));
}
