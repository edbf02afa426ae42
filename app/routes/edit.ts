import { data } from "react-router";
import { ChangeRequest, type EditAnswer } from "~/core/edits/answer";
import { Refusal } from "~/core/basics/refusal";
import { replacedNext, StaleRevision } from "~/db/edits.server";
import { findFilm } from "~/db/films.server";
import { isDiskFull } from "~/disk/disk-space.server";
import { editFilm } from "~/library/films/edit-film.server";
import { putEarlierBack } from "~/library/replace/replace-source.server";
import { dataFolder, db, diskIsFull } from "~/db/workplace.server";
import type { Route } from "./+types/edit";
import { readJson, requireFilm } from "./requests.server";

/** Carries out one change to a film. */
export async function action({ params, request }: Route.ActionArgs) {
  const film = requireFilm(params.filmId);
  const { id, revision } = film;
  const change = await readJson(request, ChangeRequest);
  const refused = (status: number, answer: EditAnswer) =>
    data<EditAnswer>({ revision: findFilm(db(), id)?.revision, ...answer }, { status });
  try {
    const sentence = replacedNext(db(), id);
    if (change.do === "undo" && change.revision === revision && sentence !== null) {
      await putEarlierBack(film);
      return data<EditAnswer>({ revision: findFilm(db(), id)?.revision, sentence });
    }
    return data<EditAnswer>(editFilm(id, change.revision, change) ?? { revision });
  } catch (error) {
    if (error instanceof Refusal) {
      return refused(error.status, { error: error.message, stale: error instanceof StaleRevision });
    }
    if (isDiskFull(error, dataFolder())) return refused(507, { error: diskIsFull() });
    throw error;
  }
}
