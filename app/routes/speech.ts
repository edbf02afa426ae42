import { speechSegments } from "~/core/subjects/speaking/voice";
import { readActivity } from "~/db/activity.server";
import { db } from "~/db/workplace.server";
import type { Route } from "./+types/speech";
import { requireFilm } from "./requests.server";

/** The speech segments of a film; null where its sound has not been analysed. */
export function loader({ params }: Route.LoaderArgs) {
  const { id, info } = requireFilm(params.filmId);
  const activity = readActivity(db(), id, info.frames);
  return { segments: activity && speechSegments(activity.speech, info.rate) };
}
