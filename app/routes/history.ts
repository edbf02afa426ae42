import { listEdits } from "~/db/edits.server";
import { db } from "~/db/workplace.server";
import type { Route } from "./+types/history";
import { orRefuse, requireFilm } from "./requests.server";

/** The history of a film, newest first. */
export function loader({ params }: Route.LoaderArgs) {
  const film = requireFilm(params.filmId);
  return orRefuse(() => Response.json({ edits: listEdits(db(), film) }));
}
