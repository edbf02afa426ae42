import { z } from "zod";
import { shapeFit } from "~/core/checks/shape-fit";
import { FRAME_SHAPES } from "~/core/geometry/frame-shapes";
import { Id, ShotId } from "~/core/basics/ids";
import { loadFraming } from "~/library/versions/lay-version.server";
import { db } from "~/db/workplace.server";
import type { Route } from "./+types/shapes";
import { orRefuse, requireFilm, requireShape } from "./requests.server";

const Query = z.object({ version: Id, shot: ShotId });

/** How well a shot of a version fits frames of the usual aspect ratios. */
export function loader({ params, request }: Route.LoaderArgs) {
  const film = requireFilm(params.filmId);
  const { version, shot } = requireShape(Query, Object.fromEntries(new URL(request.url).searchParams));
  const { picture, rate } = film.info;
  return orRefuse(() => {
    const framing = loadFraming(db(), film, version, shot);
    return Response.json(
      FRAME_SHAPES.map(({ name, sizes: [size] }) => ({
        name,
        size: size!,
        ...shapeFit(framing, picture, size!, rate),
      })),
    );
  });
}
