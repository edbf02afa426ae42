import { spokenStretches } from "~/core/subjects/speaking/voice";
import { readActivity } from "~/db/activity.server";
import { db } from "~/db/workplace.server";
import type { Route } from "./+types/speech";
import { requireFilm } from "./requests.server";

/** The stretches of a film in which somebody speaks; null where it was not listened to. */
export function loader({ params }: Route.LoaderArgs) {
  const { id, info } = requireFilm(params.filmId);
  const activity = readActivity(db(), id, info.frames);
  return { stretches: activity && spokenStretches(activity.speech, info.rate) };
}
