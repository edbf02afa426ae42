import { replacementOf } from "~/library/replace/replace-source.server";
import type { Route } from "./+types/replacement";
import { orRefuse, requireFilm } from "./requests.server";

/** How far a comparison with a new export has got, and what it would change. */
export function loader({ params }: Route.LoaderArgs) {
  const film = requireFilm(params.filmId);
  return orRefuse(() => replacementOf(film));
}
