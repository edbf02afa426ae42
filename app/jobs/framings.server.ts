import type { Caption } from "~/core/captions/caption";
import type { VersionState } from "~/core/edits/film-state";
import { shotFraming, shotSettings } from "~/core/edits/path-inputs";
import { requireVersion } from "~/core/edits/find";
import { Refusal } from "~/core/refusal";
import type { ShotFraming } from "~/core/path/shot-framing";
import type { Db } from "~/db/database.server";
import { loadState } from "~/db/film-state.server";
import type { FilmRow } from "~/db/films.server";
import { tracksOfShots } from "./shot-tracks.server";

/**
 * A version, everything that decides its paths, shot by shot, and what is said in the film.
 *
 * @throws Refusal if the film has no such version
 */
export function loadFramings(
  db: Db,
  film: FilmRow,
  versionId: string,
): { version: VersionState; framings: ShotFraming[]; captions: readonly Caption[] } {
  const state = loadState(db, film);
  const version = requireVersion(state, versionId);
  const tracks = tracksOfShots(db, film.id, state.shots);
  const framings = shotSettings(state, version).map((settings, i) => shotFraming(settings, tracks[i]!));
  return { version, framings, captions: state.captions };
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
