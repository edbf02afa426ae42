import { mkdir } from "node:fs/promises";
import { Command } from "commander";
import { USUAL_PATTERN } from "~/core/formats/file-names";
import { convertFilm, NEEDS_A_LOOK } from "./convert-film";
import { addCommonOptions } from "./convert-options";
import { outputOf, requireEncoder } from "./output-options";
import { runWithProgress } from "./progress-line";
import type { Terminal } from "./terminal";
import { parseShapes, targetsIn, type VersionOptions } from "./version-targets";

export const addVersionOptions = (command: Command): Command =>
  addCommonOptions(command)
    .option("--versions <shapes>", "shapes such as 9x16,4x5,1x1, or sizes such as 720x1280", parseShapes)
    .option("--preset <name>", "make the versions of a preset of the library instead")
    .requiredOption("--out <folder>", "the folder to write to")
    .option("--name <pattern>", "how files are called: {film}, {version}, {size}, {date}, {number}", USUAL_PATTERN)
    .option("--reports", "write a report beside each file, as JSON (docs/formats.md)");

/** Marks, ranges and captions belong to a single film, and are options of `convert`. */
export const ONE_FILM_NOTHING = { mark: [], leaveOut: [], captionsOffset: 0 };

export function exportCommand(terminal: Terminal): Command {
  return addVersionOptions(
    new Command("export")
      .description("convert films to several versions each, into a folder")
      .argument("<films...>", "the films to convert"),
  ).action(async (files: string[], options: VersionOptions, command: Command) => {
    const taken = new Set<string>();
    const said = { ...options, ...ONE_FILM_NOTHING };
    const wanted = files.map((file) => ({ file, targets: targetsIn(file, said, command, taken) }));
    for (const { out, above } of wanted.flatMap(({ targets }) => targets)) {
      await requireEncoder(outputOf(options, out, above.output));
    }
    await mkdir(options.out, { recursive: true });
    await runWithProgress(terminal, async (running) => {
      for (const { file, targets } of wanted) {
        const done = await convertFilm(file, said, targets, running);
        if (done.some(({ faults }) => faults.length > 0)) terminal.status = NEEDS_A_LOOK;
      }
    });
  });
}
