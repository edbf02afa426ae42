import { idleRanges } from "~/core/activity/idle-ranges";
import { readActivity } from "~/db/activity.server";
import { listShots } from "~/db/shots.server";
import { db } from "~/db/workplace.server";
import type { Route } from "./+types/idle";
import { requireFilm } from "./requests.server";

/** Ranges that the film can do without; null where its activity is unknown. */
export function loader({ params }: Route.LoaderArgs) {
  const { id, info } = requireFilm(params.filmId);
  const activity = readActivity(db(), id, info.frames);
  if (!activity) return { ranges: null };
  const cuts = listShots(db(), id).map(({ start }) => start);
  return { ranges: idleRanges(activity, cuts, info.rate) };
}
