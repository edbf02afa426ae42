import { filmStatus } from "~/library/films/film-status.server";
import type { Route } from "./+types/status";
import { requireFilm } from "./requests.server";

/** What is being done to a film, and whether there is more to be loaded: little data, because it is polled. */
export function loader({ params }: Route.LoaderArgs) {
  return Response.json(filmStatus(requireFilm(params.filmId)));
}
