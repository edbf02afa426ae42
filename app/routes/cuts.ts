import { parse } from "node:path";
import { data } from "react-router";
import { compareCuts, type ListReading } from "~/core/formats/compare-cuts";
import { FormatError } from "~/core/formats/cut-list";
import { readCutsCsv, writeCutsCsv } from "~/core/formats/cuts-csv";
import { readEdl, writeEdl } from "~/core/formats/edl";
import { readOtio, writeOtio } from "~/core/formats/otio";
import { transitionsOf } from "~/core/shots/shot";
import { findFilm } from "~/db/films.server";
import { listShots } from "~/db/shots.server";
import { db } from "~/jobs/workplace.server";
import type { Route } from "./+types/cuts";

function requireFilm(id: string) {
  const film = findFilm(db(), id);
  if (!film) throw data("There is no such film in your library.", { status: 404 });
  return film;
}

/** The film's cuts as a file: `…/cuts/edl`, `…/cuts/otio` or `…/cuts/csv`. */
export function loader({ params }: Route.LoaderArgs) {
  const film = requireFilm(params.filmId);
  const title = parse(film.name).name;
  const { rate, frames } = film.info;
  const list = { title, rate, frames, transitions: transitionsOf(listShots(db(), film.id)) };
  const texts: Record<string, () => string> = {
    edl: () => writeEdl(list),
    otio: () => writeOtio(list, film.name),
    csv: () => writeCutsCsv(list),
  };
  const text = texts[params.format]?.();
  if (text === undefined) throw data("Cuts are written as edl, otio or csv.", { status: 404 });
  const name = encodeURIComponent(`${title}.${params.format}`);
  return new Response(text, {
    headers: {
      "content-type": "text/plain; charset=utf-8",
      "content-disposition": `attachment; filename*=UTF-8''${name}`,
    },
  });
}

const LARGEST_BYTES = 8_000_000;

/** Reads a list of cuts that was picked, and compares it; nothing is changed by that. */
export async function action({ params, request }: Route.ActionArgs): Promise<ListReading> {
  const film = requireFilm(params.filmId);
  const { rate, frames } = film.info;
  const file = (await request.formData()).get("list");
  if (!(file instanceof File)) throw data("A file is needed.", { status: 400 });
  if (file.size > LARGEST_BYTES) return { name: file.name, error: "this is too large to be a list of cuts" };
  const text = await file.text();
  try {
    const read = /\.otio$/i.test(file.name) ? readOtio : /\.csv$/i.test(file.name) ? readCutsCsv : readEdl;
    const transitions = read(text, rate, frames);
    const comparison = compareCuts(transitionsOf(listShots(db(), film.id)), transitions);
    return { name: file.name, transitions, comparison };
  } catch (error) {
    if (error instanceof FormatError) return { name: file.name, error: error.message };
    throw error;
  }
}
