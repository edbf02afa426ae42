import { z } from "zod";
import { Id } from "~/core/basics/ids";
import { hasClips } from "~/db/clips.server";
import { listFilms } from "~/db/films.server";
import { arrangeClips } from "~/library/clips/clips.server";
import { db, isMissing } from "~/db/workplace.server";
import type { Route } from "./+types/clips";
import { orDiskFull, readJson, requireFilm, whyNot } from "./requests.server";

/** Films of the library that clips can be made from. */
export function loader({ params }: Route.LoaderArgs) {
  const { id } = requireFilm(params.filmId);
  const films = listFilms(db())
    .filter((film) => film.id !== id && film.deletedAt === null && !isMissing(film))
    .filter((film) => !hasClips(db(), film.id))
    .map(({ id, name, fingerprint, info: { picture, rate, frames } }) => ({
      id,
      name,
      fingerprint,
      info: { picture, rate, frames },
    }));
  return { films };
}

const Arrangement = z.object({
  choices: z.array(z.object({ clipId: Id.nullable(), filmId: Id.nullable() })).max(1000),
});

/** Rearranges the clips of a film, or makes it of others. */
export async function action({ params, request }: Route.ActionArgs) {
  const film = requireFilm(params.filmId);
  const { choices } = await readJson(request, Arrangement);
  return orDiskFull(async () => ({ error: await whyNot(() => arrangeClips(film, choices)) }));
}
