import { z } from "zod";
import { Id } from "~/core/basics/ids";
import { joinFilms } from "~/library/clips/clips.server";
import type { Route } from "./+types/join";
import { orDiskFull, readJson, whyNot } from "./requests.server";

const Join = z.object({ filmIds: z.array(Id).min(2).max(500), name: z.string().trim().min(1).max(200) });

/** Joins several films of the library into one. */
export async function action({ request }: Route.ActionArgs) {
  const { filmIds, name } = await readJson(request, Join);
  return orDiskFull(async () => {
    let filmId: string | null = null;
    const error = await whyNot(async () => (filmId = await joinFilms(filmIds, name)));
    return { filmId, error };
  });
}
