import { readFile } from "node:fs/promises";
import { findFont, findPicture } from "~/library/own/own-files.server";
import type { Route } from "./+types/own-file";
import { refusal } from "./requests.server";
import { commonTexts } from "~/texts/common";

const t = commonTexts.ownFileRoute;

/** One of the editor's own pictures or fonts. Its content never changes, because its id follows from that. */
export async function loader({ params }: Route.LoaderArgs) {
  const kept = findPicture(params.fileId) ?? findFont(params.fileId);
  if (!kept) throw refusal(404, t.thereIsNoSuchPicture);
  return new Response(new Uint8Array(await readFile(kept.file)), {
    headers: {
      "content-type": kept.type,
      "cache-control": "private, max-age=31536000, immutable",
      "x-content-type-options": "nosniff",
    },
  });
}
