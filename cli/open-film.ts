import { basename } from "node:path";
import { type Command, InvalidArgumentError } from "commander";
import { describeLacking, type Lacking } from "~/core/checks/lacking-pictures";
import { ChoiceError, withFields, withSound } from "~/media/film-choices";
import type { FilmFile, FilmInfo } from "~/media/film-file";
import { probeFilm } from "~/media/probe.server";
import { UsageError } from "./options";

/** How a film is taken, as it is said on the command line. */
export interface FilmChoices {
  /** Which of its sounds, from 1 on. */
  sound?: number;
  fields?: boolean;
}

export const addFilmOptions = (command: Command): Command =>
  command
    .option("--sound <number>", "which of the film's sounds to use, from 1 on; its usual one if left out", parseSound)
    .option("--fields", "make each half picture of an interlaced film a frame, at double rate");

function parseSound(text: string): number {
  if (!/^[1-9]\d{0,2}$/.test(text)) throw new InvalidArgumentError("A sound is a whole number, from 1 on.");
  return Number(text);
}

function taken(info: FilmInfo, name: string, { sound, fields }: FilmChoices): FilmInfo {
  try {
    const heard = sound === undefined ? info : withSound(info, sound - 1);
    return fields ? withFields(heard) : heard;
  } catch (error) {
    if (error instanceof ChoiceError) throw new UsageError(`${name}: ${error.message}`);
    throw error;
  }
}

/** Looks into a film, and says what it lacks as far as that can be told without decoding it. */
export async function openFilm(file: string, choices: FilmChoices = {}): Promise<FilmFile> {
  const film = { file, name: basename(file), info: taken(await probeFilm(file), basename(file), choices) };
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
