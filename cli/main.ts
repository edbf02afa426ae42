/** The command line: `./glad-pan COMMAND` comes here for everything that is not set-up. */
import { existsSync } from "node:fs";
import { Command, CommanderError } from "commander";
import { StartError } from "~/disk/start-error";
import { FilmError } from "~/media/film-tool.server";
import { analyseCommand } from "./analyse";
import { batchCommand } from "./batch";
import { checkCommand } from "./check";
import { convertCommand } from "./convert";
import { exportCommand } from "./export";
import { cutsCommand } from "./cuts";
import { restoreCommand } from "./restore";
import { UsageError } from "./options";
import { solveCommand } from "./solve";

const program = new Command("glad-pan")
  .description("Reframes finished horizontal footage for vertical, square and other frames.")
  .exitOverride()
  .configureOutput({ outputError: (text, write) => write(text) });
for (const command of [
  convertCommand(),
  exportCommand(),
  batchCommand(),
  analyseCommand(),
  solveCommand(),
  checkCommand(),
  cutsCommand(),
  restoreCommand(),
]) {
  program.addCommand(command);
}

/** A film's name may begin with a dash; where there is such a file, it is no option. */
function withFileNames([node, script, command, first, ...rest]: string[]): string[] {
  const isFile = first?.startsWith("-") && existsSync(first);
  return [node, script, command, isFile ? `./${first}` : first, ...rest].filter((arg) => arg !== undefined);
}

const WRONG_USAGE = 2;

try {
  await program.parseAsync(withFileNames(process.argv));
} catch (error) {
  if (error instanceof CommanderError) {
    process.exitCode = error.exitCode === 0 ? 0 : WRONG_USAGE;
  } else if (error instanceof UsageError) {
    console.error(`glad-pan: ${error.message}`);
    process.exitCode = WRONG_USAGE;
  } else {
    const known = error instanceof Error ? error.message : String(error);
    const plain = error instanceof FilmError || error instanceof StartError;
    console.error(plain ? `glad-pan: ${known}` : `glad-pan: something went wrong: ${known}`);
    process.exitCode = 1;
  }
}
