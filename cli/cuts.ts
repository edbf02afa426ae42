import { writeFile } from "node:fs/promises";
import { parse } from "node:path";
import { Command } from "commander";
import { counted } from "~/texts/numbers";
import type { CutList } from "~/core/formats/cut-list";
import { writeCutsCsv } from "~/core/formats/cuts-csv";
import { writeEdl } from "~/core/formats/edl";
import { writeOtio } from "~/core/formats/otio";
import { DEFAULT_SENSITIVITY } from "~/core/shots/detect-transitions";
import { findCuts } from "~/pipelines/find-cuts.server";
import { writeAside } from "~/disk/write-aside.server";
import { openFilm } from "./open-film";
import { parseSensitivity } from "./options";
import { clockOfFilm } from "~/core/film/film-info";
import { runWithProgress } from "./progress-line";
import type { Terminal } from "./terminal";

interface CutsOptions {
  edl?: string;
  otio?: string;
  csv?: string;
  sensitivity: number;
}

async function writeLists(list: CutList, file: string, { edl, otio, csv }: CutsOptions): Promise<void> {
  const write = async (target: string | undefined, text: string) => {
    if (target) await writeAside(target, (aside) => writeFile(aside, text));
  };
  await write(edl, writeEdl(list));
  await write(otio, writeOtio(list, file));
  await write(csv, writeCutsCsv(list));
}

export function cutsCommand(terminal: Terminal): Command {
  return new Command("cuts")
    .description("find the cuts of a film, without looking for anybody; as a table unless a file is asked for")
    .argument("<film>", "the film to analyse")
    .option("--edl <file>", "write the cuts as a CMX 3600 list")
    .option("--otio <file>", "write the cuts as an OpenTimelineIO timeline")
    .option("--csv <file>", "write the shots as a table")
    .option(
      "--sensitivity <number>",
      "0 finds only certain cuts, 100 every possible cut",
      parseSensitivity,
      DEFAULT_SENSITIVITY,
    )
    .action((file: string, options: CutsOptions) =>
      runWithProgress(terminal, async ({ progress, signal }) => {
        const film = await openFilm(file, terminal);
        const { name } = film;
        const { frames } = film.info;
        const transitions = await findCuts(film, {
          sensitivity: options.sensitivity,
          signal,
          onProgress: (share) => progress.show({ number: 1, of: 1, what: "Looking for cuts" }, share),
        });
        const list = { title: parse(file).name, clock: clockOfFilm(film.info), frames, transitions };
        await writeLists(list, file, options);
        progress.end();
        if (!options.edl && !options.otio && !options.csv) terminal.print(writeCutsCsv(list).trimEnd());
        const count = transitions.length;
        terminal.tell(`${name}: ${counted(count, "cut")}, ${counted(count + 1, "shot")}.`);
      }),
    );
}
