import { listShots } from "~/db/shots.server";
import { foundTracks, foundVersion } from "~/jobs/found-tracks.server";
import { db } from "~/jobs/workplace.server";
import type { Route } from "./+types/tracks";
import { requireFilm } from "./requests.server";

/** All tracks of a film, by shot: much data that changes seldom, so the desk asks for it apart. */
export function loader({ params }: Route.LoaderArgs) {
  const film = requireFilm(params.filmId);
  const shots = listShots(db(), film.id);
  const found = foundVersion(db(), film.id, shots);
  const tracks = foundTracks(db(), film.id, shots);
  return { found, byShot: Object.fromEntries(shots.map((shot, i) => [shot.id, tracks[i]!])) };
}

/** The desk asks again when it knows of other tracks than it has; a poll need not send them all anew. */
export const shouldRevalidate = () => false;
