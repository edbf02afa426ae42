import { basename } from "node:path";
import { describeLacking, type Lacking } from "~/core/checks/lacking-pictures";
import type { FilmFile } from "~/media/film-file";
import { probeFilm } from "~/media/probe.server";

/** Looks into a film, and says what it lacks as far as that can be told without decoding it. */
export async function openFilm(file: string): Promise<FilmFile> {
  const film = { file, name: basename(file), info: await probeFilm(file) };
  const { grid, cutOff, frames, rate } = film.info;
  const lacking = describeLacking({ ...grid, cutOff, undecoded: [] }, frames, rate);
  for (const sentence of lacking) console.error(`${film.name}: ${sentence}.`);
  return film;
}

/** What is said of pictures that could not be decoded, once the film has been. */
export const undecodedLines = ({ undecoded }: Lacking, { name, info }: FilmFile): string[] =>
  describeLacking({ held: 0, longHolds: [], cutOff: 0, undecoded }, info.frames, info.rate).map(
    (sentence) => `${name}: ${sentence}.`,
  );
