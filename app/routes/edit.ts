import { data } from "react-router";
import { ChangeRequest, type EditAnswer } from "~/core/edits/answer";
import { Refusal } from "~/core/refusal";
import { StaleRevision } from "~/db/edits.server";
import { findFilm } from "~/db/films.server";
import { isDiskFull } from "~/disk/disk-space.server";
import { editFilm } from "~/jobs/edit-film.server";
import { dataFolder, db, diskIsFull } from "~/jobs/workplace.server";
import type { Route } from "./+types/edit";
import { readJson, requireFilm } from "./requests.server";

/** Carries out one change to a film. */
export async function action({ params, request }: Route.ActionArgs) {
  const { id, revision } = requireFilm(params.filmId);
  const change = await readJson(request, ChangeRequest);
  const refused = (status: number, answer: EditAnswer) =>
    data<EditAnswer>({ revision: findFilm(db(), id)?.revision, ...answer }, { status });
  try {
    return data<EditAnswer>(editFilm(id, change.revision, change) ?? { revision });
  } catch (error) {
    if (error instanceof Refusal) {
      return refused(error.status, { error: error.message, stale: error instanceof StaleRevision });
    }
    if (isDiskFull(error, dataFolder())) return refused(507, { error: diskIsFull() });
    throw error;
  }
}
