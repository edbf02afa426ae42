import { z } from "zod";
import { Frame } from "~/core/time/rate";
import { setWanted } from "~/db/films.server";
import { db } from "~/db/workplace.server";
import type { Route } from "./+types/wanted";
import { orDiskFull, readJson, requireFilm } from "./requests.server";

const Wanted = z.object({ frame: Frame });

/** Directs the analysis of a film to a frame, once its present step is stored. */
export async function action({ params, request }: Route.ActionArgs) {
  const { id, info } = requireFilm(params.filmId);
  const { frame } = await readJson(request, Wanted);
  return orDiskFull(() => {
    setWanted(db(), id, Math.min(frame, info.frames - 1));
    return null;
  });
}
