import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { basename, join } from "node:path";
import { type Command, InvalidArgumentError } from "commander";
import { describeLacking, type Lacking, lackingOf } from "~/core/checks/lacking-pictures";
import { withFields, withSound } from "~/media/film-choices";
import type { FilmInfo } from "~/core/film/film-info";
import { Refusal } from "~/core/basics/refusal";
import type { FilmFile } from "~/media/film-file";
import { probeFilm } from "~/media/probe.server";
import { straighten } from "~/media/straighten.server";
import { UsageError } from "./options";
import type { Terminal } from "./terminal";

/** How a film is read, as options. */
export interface FilmChoices {
  /** Number of its audio track, from 1. */
  audioTrack?: number;
  fields?: boolean;
}

export const addFilmOptions = (command: Command): Command =>
  command
    .option("--audio-track <number>", "the audio track to use, from 1; the default one if left out", parseSound)
    .option("--fields", "make each field of an interlaced film a frame, at double rate");

function parseSound(text: string): number {
  if (!/^[1-9]\d{0,2}$/.test(text)) throw new InvalidArgumentError("A sound is a whole number, from 1 on.");
  return Number(text);
}

function taken(info: FilmInfo, name: string, { audioTrack, fields }: FilmChoices): FilmInfo {
  try {
    const heard = audioTrack === undefined ? info : withSound(info, audioTrack - 1);
    return fields ? withFields(heard) : heard;
  } catch (error) {
    if (error instanceof Refusal) throw new UsageError(`${name}: ${error.message}`);
    throw error;
  }
}

/** Probes a film; one whose times start over is straightened first. */
async function straight(file: string, name: string, terminal: Terminal): Promise<Pick<FilmFile, "file" | "info">> {
  const info = await probeFilm(file, name);
  if (!info.timeBreaks) return { file, info };
  terminal.tell(`${name}: its timestamps restart; rewrapping it first.`);
  const folder = mkdtempSync(join(tmpdir(), "glad-pan-straight-"));
  process.once("exit", () => rmSync(folder, { recursive: true, force: true }));
  const inOrder = join(folder, "film.mkv");
  await straighten(file, name, inOrder);
  return { file: inOrder, info: await probeFilm(inOrder, name) };
}

/** Probes a film, and reports what it lacks as far as that is known without decoding. */
export async function openFilm(file: string, terminal: Terminal, choices: FilmChoices = {}): Promise<FilmFile> {
  const name = basename(file);
  const found = await straight(file, name, terminal);
  const film = { ...found, name, info: taken(found.info, name, choices) };
  const { frames, rate } = film.info;
  const lacking = describeLacking(lackingOf(film.info), frames, rate);
  for (const sentence of lacking) terminal.tell(`${film.name}: ${sentence}.`);
  return film;
}

/** Lines about pictures that could not be decoded, after the film has been. */
export const undecodedLines = ({ undecoded }: Lacking, { name, info }: FilmFile): string[] =>
  describeLacking({ held: 0, longHolds: [], cutOff: 0, undecoded }, info.frames, info.rate).map(
    (sentence) => `${name}: ${sentence}.`,
  );
