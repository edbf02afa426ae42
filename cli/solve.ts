import { writeFile } from "node:fs/promises";
import { Command } from "commander";
import { counted } from "~/texts/numbers";
import { readReport } from "~/core/formats/read-report";
import type { Size } from "~/core/geometry/box";
import { writeAside } from "~/disk/write-aside.server";
import { OwnFiles } from "./own-files";
import { addFramingOptions, type FramingOptions, ruleOf } from "./framing-options";
import { layPaths, reportOf } from "./lay-paths";
import { parseSize } from "./options";
import { readReportFile } from "./read-report-file";
import type { Terminal } from "./terminal";

interface SolveOptions extends FramingOptions {
  size: Size;
  report: string;
}

async function solve(file: string, options: SolveOptions, terminal: Terminal): Promise<void> {
  const film = await readReportFile(file, readReport);
  const rule = ruleOf(options);
  const laid = layPaths(
    film,
    film.shots.map((shot) => ({ ...shot, rule })),
    { ...options, backdrop: await new OwnFiles().backdrop(options.backdrop), kept: film.kept },
  );
  const report = reportOf(film, laid, { lacking: film.lacking });
  await writeAside(options.report, (aside) => writeFile(aside, `${JSON.stringify(report)}\n`));
  const keys = report.shots.reduce((sum, shot) => sum + shot.keys.length, 0);
  terminal.tell(`${options.report}: ${counted(report.shots.length, "shot")}, ${counted(keys, "keyframe")}.`);
}

export function solveCommand(terminal: Terminal): Command {
  const command = new Command("solve")
    .description("lay a new path from what `convert` or `analyse` has found, without looking at the film again")
    .argument("<report>", "the JSON file that one of them has written")
    .requiredOption("--size <size>", "size of the result, such as 1080x1920", parseSize)
    .requiredOption("--report <file>", "the JSON file to write (docs/formats.md)");
  return addFramingOptions(command).action((file: string, options: SolveOptions) => solve(file, options, terminal));
}
