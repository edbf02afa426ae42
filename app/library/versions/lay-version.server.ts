import type { FilmState, VersionState } from "~/core/version/film-state";
import { requireVersion } from "~/core/version/find";
import { lay, type LaidVersion } from "~/core/version/lay";
import { shotFraming, shotSettings } from "~/core/version/shot-settings";
import type { ShotFraming } from "~/core/path/shot-framing";
import { Refusal } from "~/core/basics/refusal";
import type { Db } from "~/db/database.server";
import { loadState } from "~/db/film-state.server";
import type { FilmRow } from "~/db/films.server";
import { tracksOfShots } from "../films/shot-tracks.server";
import { libraryErrors } from "~/texts/library-errors";

/**
 * A film's state, and one of its versions with its paths.
 * @throws Refusal if the film has no such version
 */
export function layVersion(
  db: Db,
  film: FilmRow,
  versionId: string,
): { state: FilmState; version: VersionState; laid: LaidVersion } {
  const state = loadState(db, film);
  const version = requireVersion(state, versionId);
  const tracks = tracksOfShots(db, film.id, state.shots);
  return { state, version, laid: lay(film.info, version, shotSettings(state, version), tracks) };
}

/**
 * Everything that determines the path of one shot of a version, except what depends on the shots before.
 * @throws Refusal if the film has no such version or shot
 */
export function loadFraming(db: Db, film: FilmRow, versionId: string, shotId: string): ShotFraming {
  const state = loadState(db, film);
  const settings = shotSettings(state, requireVersion(state, versionId)).find(({ shot }) => shot.id === shotId);
  if (!settings) throw new Refusal(libraryErrors.exports.shotIsGone, 404);
  return shotFraming(settings, tracksOfShots(db, film.id, [settings.shot])[0]!);
}
