import { z } from "zod";
import { CheckpointName, everythingSetIn } from "~/core/edits/checkpoint";
import { Id } from "~/core/basics/ids";
import { Refusal } from "~/core/basics/refusal";
import { addCheckpoint, findCheckpoint, hasCheckpoint, listCheckpointNames, setDeleted } from "~/db/checkpoints.server";
import { loadState } from "~/db/film-state.server";
import { db } from "~/db/workplace.server";
import { historyTexts } from "~/texts/history";
import type { Route } from "./+types/checkpoints";
import { orDiskFull, orRefuse, readJson, requireFilm } from "./requests.server";

const t = historyTexts.checkpointsRoute;

/** A film's checkpoints, newest first; with `id=ID`, everything that was set in the film then. */
export function loader({ params, request }: Route.LoaderArgs) {
  const film = requireFilm(params.filmId);
  const id = new URL(request.url).searchParams.get("id");
  return orRefuse(() => {
    if (id === null) return Response.json({ checkpoints: listCheckpointNames(db(), film.id) });
    const checkpoint = findCheckpoint(db(), film.id, id);
    if (!checkpoint) throw new Refusal(t.gone, 404);
    return Response.json(checkpoint.difference);
  });
}

const Change = z.discriminatedUnion("do", [
  z.object({ do: z.literal("add"), id: Id, name: CheckpointName }),
  z.object({ do: z.enum(["delete", "put-back"]), id: Id }),
]);

/** Adds a checkpoint of the present film, or deletes or restores one. */
export async function action({ params, request }: Route.ActionArgs) {
  const film = requireFilm(params.filmId);
  const change = await readJson(request, Change);
  return orDiskFull(() =>
    orRefuse(() => {
      if (change.do === "add") {
        if (hasCheckpoint(db(), film.id, change.id)) throw new Refusal(t.alreadyThere);
        const difference = everythingSetIn(loadState(db(), film));
        addCheckpoint(db(), film.id, { id: change.id, name: change.name, madeAt: Date.now(), difference });
      } else setDeleted(db(), film.id, change.id, change.do === "delete");
      return Response.json({});
    }),
  );
}
