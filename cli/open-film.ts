import { basename } from "node:path";
import { describeRepeated } from "~/core/checks/repeated-pictures";
import type { FilmFile } from "~/media/film-file";
import { probeFilm } from "~/media/probe.server";

/** Looks into a film, and says what it lacks. */
export async function openFilm(file: string): Promise<FilmFile> {
  const film = { file, name: basename(file), info: await probeFilm(file) };
  const { grid, frames, rate } = film.info;
  const repeated = describeRepeated(grid, frames, rate);
  if (repeated) console.error(`${film.name}: ${repeated}.`);
  return film;
}
