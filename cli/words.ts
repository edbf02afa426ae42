import { writeFile } from "node:fs/promises";
import { Command } from "commander";
import type { CaptionText } from "~/core/captions/caption";
import { writeSrt } from "~/core/captions/write-captions";
import { extentOf, type Track } from "~/core/subjects/tracking/track";
import { frameToSeconds, type Rate } from "~/core/time/rate";
import { analyseAtOnce } from "~/pipelines/analyse-film.server";
import { writeAside } from "~/disk/write-aside.server";
import { counted, fixed } from "~/texts/numbers";
import { openFilm } from "./open-film";
import { type Running, runWithProgress } from "./progress-line";
import type { Terminal } from "./terminal";

interface WordsOptions {
  json?: true;
  srt?: string;
}

/** A text as it is printed: its frames, with the end past the last, its lines, and its place as [x, y, width, height]. */
const printed = (track: Track) => {
  const { x, y, width, height } = track.boxes[0]!;
  return {
    ...extentOf(track),
    lines: track.words?.lines ?? [],
    box: [x, y, width, height].map(Math.round),
    ...(track.mayBeSign && { mayBeSign: true }),
  };
};

function lineOf(track: Track, rate: Rate): string {
  const { start, end } = extentOf(track);
  const seconds = [start, end].map((frame) => fixed(frameToSeconds(frame, rate), 2)).join("–");
  const said = track.words?.lines.join(" / ") ?? "(not read)";
  return `${seconds} s  ${said}${track.mayBeSign ? "  (may be a sign)" : ""}`;
}

const captionOf = (track: Track): CaptionText[] =>
  track.words ? [{ ...extentOf(track), text: track.words.lines.join("\n"), speaker: null }] : [];

async function listWords(file: string, options: WordsOptions, { terminal, progress, signal }: Running): Promise<void> {
  const film = await openFilm(file, terminal);
  const { shots } = await analyseAtOnce(film, {
    signal,
    onProgress: (share) => progress.show({ number: 1, of: 1, what: "Looking for text" }, share),
  });
  const texts = shots
    .flatMap(({ tracks }) => tracks.filter(({ kind }) => kind === "text"))
    .sort((a, b) => a.start - b.start);
  const { srt } = options;
  if (srt) await writeAside(srt, (aside) => writeFile(aside, writeSrt(texts.flatMap(captionOf), film.info.rate)));
  progress.end();
  if (options.json) terminal.print(JSON.stringify(texts.map(printed), null, 2));
  else for (const track of texts) terminal.print(lineOf(track, film.info.rate));
  terminal.tell(`${film.name}: ${counted(texts.length, "text")}.`);
}

export function wordsCommand(terminal: Terminal): Command {
  return new Command("words")
    .description("find and read the text over a film")
    .argument("<film>", "the film to analyse")
    .option("--json", "print it with frames and places")
    .option("--srt <file>", "write it as captions, such as for a translation")
    .action((file: string, options: WordsOptions) =>
      runWithProgress(terminal, (running) => listWords(file, options, running)),
    );
}
