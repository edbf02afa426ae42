import { readFile } from "node:fs/promises";
import { PICTURE_KINDS } from "~/core/composition/picture";
import { findPicture } from "~/jobs/pictures.server";
import type { Route } from "./+types/picture";
import { refusal } from "./requests.server";

/** A picture of the editor's own. What is in it never changes, because its id follows from that. */
export async function loader({ params }: Route.LoaderArgs) {
  const kept = findPicture(params.pictureId);
  if (!kept) throw refusal(404, "There is no such picture in your library.");
  return new Response(new Uint8Array(await readFile(kept.file)), {
    headers: {
      "content-type": PICTURE_KINDS[kept.kind],
      "cache-control": "private, max-age=31536000, immutable",
      "x-content-type-options": "nosniff",
    },
  });
}
