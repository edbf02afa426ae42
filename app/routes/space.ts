import type { ShouldRevalidateFunctionArgs } from "react-router";
import type { Spaces } from "~/components/library/library-view";
import { listFilms } from "~/db/films.server";
import { freeBytes } from "~/disk/disk-space.server";
import { spaceOf } from "~/library/films/film-space.server";
import { dataFolder, db } from "~/db/workplace.server";

/** Disk usage of the library by film, and free space. */
export async function loader() {
  const sizes = await Promise.all(listFilms(db()).map(async (film) => [film.id, await spaceOf(film)] as const));
  return { films: Object.fromEntries(sizes) satisfies Spaces, free: freeBytes(dataFolder()) };
}

/** Only actions change it at once; a page that polls need not have every file measured. */
export const shouldRevalidate = ({ formMethod }: ShouldRevalidateFunctionArgs): boolean => formMethod !== undefined;
