import { z } from "zod";
import { keptOf, StateName } from "~/core/edits/named-state";
import { Id } from "~/core/ids";
import { Refusal } from "~/core/refusal";
import { listEdits } from "~/db/edits.server";
import { loadState } from "~/db/film-state.server";
import { addNamedState, findNamedState, hasNamedState, listStateNames, setDeleted } from "~/db/named-states.server";
import { db } from "~/db/workplace.server";
import type { Route } from "./+types/history";
import { orDiskFull, orRefuse, readJson, requireFilm } from "./requests.server";
import { deskTexts } from "~/texts/desk";

const t = deskTexts.historyRoute;

/** A film's edits and named states; with `only=states` these alone; of `state=ID`, all that was set in the film then. */
export function loader({ params, request }: Route.LoaderArgs) {
  const film = requireFilm(params.filmId);
  const query = new URL(request.url).searchParams;
  const stateId = query.get("state");
  return orRefuse(() => {
    if (stateId === null) {
      const edits = query.get("only") === "states" ? [] : listEdits(db(), film);
      return Response.json({ edits, states: listStateNames(db(), film.id) });
    }
    const named = findNamedState(db(), film.id, stateId);
    if (!named) throw new Refusal(t.thereIsNoSuchNamed, 404);
    return Response.json(named.kept);
  });
}

const Change = z.discriminatedUnion("do", [
  z.object({ do: z.literal("name"), id: Id, name: StateName }),
  z.object({ do: z.enum(["delete", "put-back"]), id: Id }),
]);

/** Gives the film as it is a name, or deletes a named state; until the film goes, it can be put back. */
export async function action({ params, request }: Route.ActionArgs) {
  const film = requireFilm(params.filmId);
  const change = await readJson(request, Change);
  return orDiskFull(() =>
    orRefuse(() => {
      if (change.do === "name") {
        if (hasNamedState(db(), film.id, change.id)) throw new Refusal(t.stateExists);
        const kept = keptOf(loadState(db(), film));
        addNamedState(db(), film.id, { id: change.id, name: change.name, madeAt: Date.now(), kept });
      } else setDeleted(db(), film.id, change.id, change.do === "delete");
      return Response.json({});
    }),
  );
}
