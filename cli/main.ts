/** The command line, as a function: every `./glad-pan COMMAND` except set-up. */
import { existsSync } from "node:fs";
import { Command, CommanderError } from "commander";
import { StartError } from "~/disk/start-error";
import { FilmError } from "~/media/film-tool.server";
import { analyseCommand } from "./analyse";
import { batchCommand } from "./batch";
import { checkCommand } from "./check";
import { convertCommand } from "./convert";
import { cutsCommand } from "./cuts";
import { exportCommand } from "./export";
import { wordsCommand } from "./words";
import { UsageError } from "./options";
import { restoreCommand } from "./restore";
import { solveCommand } from "./solve";
import type { Terminal } from "./terminal";

const COMMANDS = [
  convertCommand,
  exportCommand,
  batchCommand,
  analyseCommand,
  solveCommand,
  checkCommand,
  cutsCommand,
  wordsCommand,
  restoreCommand,
];
const FAILED = 1;
const WRONG_USAGE = 2;

/** A film's name may begin with a dash; if there is such a file, it is no option. */
function withFileNames([command, first, ...rest]: readonly string[]): string[] {
  const isFile = first?.startsWith("-") && existsSync(first);
  return [command, isFile ? `./${first}` : first, ...rest].filter((arg) => arg !== undefined);
}

/**
 * Carries out a command.
 * @param args the command and its arguments, such as "convert film.mp4 --size 1080x1920 --out out.mp4"
 * @returns the exit code, once everything is written
 */
export async function run(args: readonly string[], terminal: Terminal): Promise<number> {
  const program = new Command("glad-pan")
    .description("Reframes finished horizontal footage for vertical, square and other frames.")
    .exitOverride()
    .configureOutput(terminal.writing);
  for (const command of COMMANDS) program.addCommand(command(terminal).copyInheritedSettings(program));
  try {
    await program.parseAsync(withFileNames(args), { from: "user" });
    return terminal.status;
  } catch (error) {
    // Commander has explained its own errors already.
    if (error instanceof CommanderError) return error.exitCode === 0 ? 0 : WRONG_USAGE;
    const said = error instanceof Error ? error.message : String(error);
    const isExplained = [UsageError, FilmError, StartError].some((known) => error instanceof known);
    terminal.tell(isExplained ? `glad-pan: ${said}` : `glad-pan: something went wrong: ${said}`);
    return error instanceof UsageError ? WRONG_USAGE : FAILED;
  }
}
