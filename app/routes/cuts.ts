import { titleOf } from "~/core/formats/file-names";
import { compareCuts, type ListReading } from "~/core/formats/compare-cuts";
import { FormatError } from "~/core/formats/cut-list";
import { readCutsCsv, writeCutsCsv } from "~/core/formats/cuts-csv";
import { readEdl, writeEdl } from "~/core/formats/edl";
import { readOtio, writeOtio } from "~/core/formats/otio";
import { transitionsOf } from "~/core/shots/shot";
import { listShots } from "~/db/shots.server";
import { db } from "~/db/workplace.server";
import type { Route } from "./+types/cuts";
import { clockOfFilm } from "~/core/film/film-info";
import { LIST_BODY_BYTES, readForm, refusal, requireFilm } from "./requests.server";
import { deskTexts } from "~/texts/desk";

const t = deskTexts.cutsRoute;

/** The film's cuts as a file: `…/cuts/edl`, `…/cuts/otio` or `…/cuts/csv`. */
export function loader({ params }: Route.LoaderArgs) {
  const film = requireFilm(params.filmId);
  const title = titleOf(film.name);
  const { frames } = film.info;
  const list = { title, clock: clockOfFilm(film.info), frames, transitions: transitionsOf(listShots(db(), film.id)) };
  const writers = new Map([
    ["edl", () => writeEdl(list)],
    ["otio", () => writeOtio(list, film.name)],
    ["csv", () => writeCutsCsv(list)],
  ]);
  const text = writers.get(params.format)?.();
  if (text === undefined) throw refusal(404, t.cutsAreWrittenAsEdl);
  const name = encodeURIComponent(`${title}.${params.format}`);
  return new Response(text, {
    headers: {
      "content-type": "text/plain; charset=utf-8",
      "content-disposition": `attachment; filename*=UTF-8''${name}`,
    },
  });
}

/** Parses a selected cut list, and compares it, without changing anything. */
export async function action({ params, request }: Route.ActionArgs): Promise<ListReading> {
  const film = requireFilm(params.filmId);
  const { frames } = film.info;
  const file = (await readForm(request, LIST_BODY_BYTES)).get("list");
  if (!(file instanceof File)) throw refusal(400, t.aFileIsNeeded);
  const text = await file.text();
  try {
    const read = /\.otio$/i.test(file.name) ? readOtio : /\.csv$/i.test(file.name) ? readCutsCsv : readEdl;
    const transitions = read(text, clockOfFilm(film.info), frames);
    const comparison = compareCuts(transitionsOf(listShots(db(), film.id)), transitions);
    return { name: file.name, transitions, comparison };
  } catch (error) {
    if (error instanceof FormatError) return { name: file.name, error: error.message };
    throw error;
  }
}
