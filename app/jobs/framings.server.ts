import type { FilmState, VersionState } from "~/core/edits/film-state";
import { shotFraming, shotSettings } from "~/core/edits/path-inputs";
import { requireVersion } from "~/core/edits/find";
import { Refusal } from "~/core/refusal";
import type { ShotFraming } from "~/core/path/shot-framing";
import type { Db } from "~/db/database.server";
import { loadState } from "~/db/film-state.server";
import type { FilmRow } from "~/db/films.server";
import { tracksOfShots } from "./shot-tracks.server";

/**
 * The film's state, one of its versions, and everything that decides the paths of that, shot by shot.
 *
 * @throws Refusal if the film has no such version
 */
export function loadFramings(
  db: Db,
  film: FilmRow,
  versionId: string,
): { state: FilmState; version: VersionState; framings: ShotFraming[] } {
  const state = loadState(db, film);
  const version = requireVersion(state, versionId);
  const tracks = tracksOfShots(db, film.id, state.shots);
  const framings = shotSettings(state, version).map((settings, i) => shotFraming(settings, tracks[i]!));
  return { state, version, framings };
}

/**
 * Everything that decides the path of one shot of a version, but what the shots before it leave to it.
 *
 * @throws Refusal if the film has no such version or shot
 */
export function loadFraming(db: Db, film: FilmRow, versionId: string, shotId: string): ShotFraming {
  const state = loadState(db, film);
  const settings = shotSettings(state, requireVersion(state, versionId)).find(({ shot }) => shot.id === shotId);
  if (!settings) throw new Refusal("this shot no longer exists", 404);
  return shotFraming(settings, tracksOfShots(db, film.id, [settings.shot])[0]!);
}
