import { titleOf } from "~/core/formats/file-names";
import { captionsIn } from "~/core/captions/caption";
import { writeSrt, writeVtt } from "~/core/captions/write-captions";
import { requireVersion } from "~/core/version/find";
import { keptRanges } from "~/core/version/trim";
import { Refusal } from "~/core/basics/refusal";
import { loadState } from "~/db/film-state.server";
import { decodeText } from "~/disk/read-text.server";
import { db } from "~/db/workplace.server";
import { apart } from "~/media/apart/apart.server";
import { captionsTexts } from "~/texts/captions";
import type { Route } from "./+types/captions";
import { LIST_BODY_BYTES, readForm, refusal, requireFilm } from "./requests.server";

const t = captionsTexts.captionsRoute;

/**
 * The captions of a version as a file: `…/captions/srt?version=ID` or `…/captions/vtt?version=ID`; in frames of the film
 * without one.
 */
export function loader({ params, request }: Route.LoaderArgs) {
  const film = requireFilm(params.filmId);
  const { rate, frames } = film.info;
  const state = loadState(db(), film);
  const versionId = new URL(request.url).searchParams.get("version");
  const trim = versionId === null ? null : requireVersion(state, versionId).trim;
  const captions = trim ? captionsIn(state.captions, keptRanges(trim, frames, state)) : state.captions;
  const writers = new Map([
    ["srt", { write: writeSrt, type: "application/x-subrip" }],
    ["vtt", { write: writeVtt, type: "text/vtt" }],
  ]);
  const writer = writers.get(params.format);
  if (!writer) throw refusal(404, t.writtenAs);
  const name = encodeURIComponent(`${titleOf(film.name)}.${params.format}`);
  return new Response(writer.write(captions, rate), {
    headers: {
      "content-type": `${writer.type}; charset=utf-8`,
      "content-disposition": `attachment; filename*=UTF-8''${name}`,
    },
  });
}

/** Parses a selected caption file or plain text, without changing anything. */
export async function action({ params, request }: Route.ActionArgs) {
  requireFilm(params.filmId);
  const file = (await readForm(request, LIST_BODY_BYTES)).get("file");
  if (!(file instanceof File)) throw refusal(400, t.aFileIsNeeded);
  const text = decodeText(new Uint8Array(await file.arrayBuffer()));
  const { name } = file;
  // A text without timing.
  if (!text.includes("-->")) {
    if (text.trim() === "" || text.includes("\0")) return { name, error: t.noText(name) };
    return { name, text };
  }
  try {
    return { name, ...(await apart("captions", name, text, name)) };
  } catch (error) {
    if (error instanceof Refusal) return { name, error: error.message };
    throw error;
  }
}
