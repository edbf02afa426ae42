import type { ShouldRevalidateFunctionArgs } from "react-router";
import type { Spaces } from "~/components/library/library-view";
import { listFilms } from "~/db/films.server";
import { freeBytes } from "~/disk/disk-space.server";
import { spaceOf } from "~/library/films/film-space.server";
import { dataFolder, db } from "~/db/workplace.server";

/** What takes how much space in the library, film by film, and how much is free. */
export async function loader() {
  const sizes = await Promise.all(listFilms(db()).map(async (film) => [film.id, await spaceOf(film)] as const));
  return { films: Object.fromEntries(sizes) satisfies Spaces, free: freeBytes(dataFolder()) };
}

/** Only what somebody does changes it at once; a page that polls need not have every file looked at. */
export const shouldRevalidate = ({ formMethod }: ShouldRevalidateFunctionArgs): boolean => formMethod !== undefined;
