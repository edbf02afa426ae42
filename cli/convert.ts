import { Command } from "commander";
import { type ConvertOptions, convertFilm, NEEDS_A_LOOK } from "./convert-film";
import { addConvertOptions } from "./convert-options";
import { collectDrop, parseFrame, parseShare, parseSize } from "./options";
import { outputOf, requireEncoder } from "./output-options";
import { runWithProgress } from "./progress-line";
import { targetsOf } from "./targets";
import type { Terminal } from "./terminal";

export function convertCommand(terminal: Terminal): Command {
  const command = new Command("convert")
    .description("convert one film without the app")
    .argument("<film>", "the film to convert")
    .option("--size <size>", "size of the result, such as 1080x1920", parseSize)
    .option("--preset <name>", "make the versions of a preset of the library instead")
    .requiredOption("--out <file>", "the file to write; its extension says in which format")
    .option("--report <file>", "write shots, tracks, keyframes and windows as JSON (docs/formats.md)");
  return addConvertOptions(command)
    .option("--analysis <report>", "use what `analyse` has found, in place of looking through the film again")
    .option("--share <K/N>", "make one of N shares of the parts and join nothing; needs --parts", parseShare)
    .option("--from <frame>", "first frame to convert", parseFrame)
    .option("--to <frame>", "first frame not to convert", parseFrame)
    .option("--leave-out <A-B>", "leave out frames A up to B; may be given again", collectDrop, [])
    .action(async (file: string, options: ConvertOptions, of: Command) => {
      const targets = targetsOf(options, of);
      for (const { out, above } of targets) await requireEncoder(outputOf(options, out, above.output));
      await runWithProgress(terminal, async (running) => {
        const done = await convertFilm(file, options, targets, running);
        if (done.some(({ faults }) => faults.length > 0)) terminal.status = NEEDS_A_LOOK;
      });
    });
}
