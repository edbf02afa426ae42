import { listShots } from "~/db/shots.server";
import { foundTracks, foundVersion } from "~/jobs/found-tracks.server";
import { db } from "~/jobs/workplace.server";
import type { Route } from "./+types/tracks";

/** All tracks of a film, by shot: much data that changes seldom, so the desk asks for it apart. */
export function loader({ params }: Route.LoaderArgs) {
  const shots = listShots(db(), params.filmId);
  const found = foundVersion(db(), params.filmId, shots);
  const tracks = foundTracks(db(), params.filmId, shots);
  return { found, byShot: Object.fromEntries(shots.map((shot, i) => [shot.id, tracks[i]!])) };
}

/** The desk asks again when it knows of other tracks than it has; a poll need not send them all anew. */
export const shouldRevalidate = () => false;
