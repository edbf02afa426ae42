/** The command line: `./glad-pan COMMAND` comes here for everything that is not set-up. */
import { Command, CommanderError } from "commander";
import { FilmError } from "~/media/film-tool.server";
import { analyseCommand } from "./analyse";
import { convertCommand } from "./convert";
import { cutsCommand } from "./cuts";
import { UsageError } from "./options";
import { solveCommand } from "./solve";

const program = new Command("glad-pan")
  .description("Gives finished horizontal film back in vertical, square or other frames.")
  .exitOverride()
  .configureOutput({ outputError: (text, write) => write(text) });
program.addCommand(convertCommand()).addCommand(analyseCommand()).addCommand(solveCommand()).addCommand(cutsCommand());

const WRONG_USAGE = 2;

try {
  await program.parseAsync();
} catch (error) {
  if (error instanceof CommanderError) {
    process.exitCode = error.exitCode === 0 ? 0 : WRONG_USAGE;
  } else if (error instanceof UsageError) {
    console.error(`glad-pan: ${error.message}`);
    process.exitCode = WRONG_USAGE;
  } else {
    const known = error instanceof Error ? error.message : String(error);
    console.error(error instanceof FilmError ? `glad-pan: ${known}` : `glad-pan: it did not work: ${known}`);
    process.exitCode = 1;
  }
}
