import { replacementOf } from "~/library/replace/replace-source.server";
import type { Route } from "./+types/replacement";
import { orRefuse, requireFilm } from "./requests.server";

/** Progress of a comparison with a new export, and what that would change. */
export function loader({ params }: Route.LoaderArgs) {
  const film = requireFilm(params.filmId);
  return orRefuse(() => replacementOf(film));
}
