import { z } from "zod";
import { FrameRange } from "~/core/time/rate";
import { readTracks } from "~/db/analysis.server";
import { findMarkTrackById } from "~/db/marks.server";
import { db } from "~/db/workplace.server";
import type { LoadedTracks } from "~/workers/path-worker";
import type { Route } from "./+types/tracks";
import { requireFilm, requireShape } from "./requests.server";

/** Most tracks per request. */
const MOST = 2000;

const list = <T>(item: z.ZodType<T, string>) =>
  z
    .string()
    .default("")
    .transform((text) => (text === "" ? [] : text.split(",")))
    .pipe(z.array(item).max(MOST));

const Query = z.object({
  ranges: list(
    z
      .string()
      .regex(/^\d{1,9}-\d{1,9}$/)
      .transform((text) => text.split("-").map(Number))
      .transform(([start, end]) => ({ start, end }))
      .pipe(FrameRange),
  ),
  marks: list(
    z
      .string()
      .regex(/^\d{1,9}$/)
      .transform(Number),
  ),
});

/**
 * Tracks of analysed ranges, `ranges=0-45,45-90`, and of marked things, `marks=3`, by their ids in the desk's data. None of
 * them ever changes; the desk requests each once.
 */
export function loader({ params, request }: Route.LoaderArgs) {
  const film = requireFilm(params.filmId);
  const { ranges, marks } = requireShape(Query, Object.fromEntries(new URL(request.url).searchParams));
  return Response.json({
    analysed: ranges.map((range) => ({ ...range, tracks: readTracks(db(), film.id, range) })),
    marks: marks.flatMap((id) => findMarkTrackById(db(), film.id, id) ?? []),
  } satisfies LoadedTracks);
}
