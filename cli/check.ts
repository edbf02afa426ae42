/** Prints the flags of reports, and returns an exit code if any is worse than the limit. */
import { Command, InvalidArgumentError } from "commander";
import { readFlags } from "~/core/formats/read-report";
import { formatTimecode } from "~/core/time/timecode";
import { counted } from "~/texts/numbers";
import { readReportFile } from "./read-report-file";
import type { Terminal } from "./terminal";

interface CheckOptions {
  limit: number;
  json?: boolean;
}

/** Limit of severity where none is given. */
const USUAL_LIMIT = 50;
/** Exit code if a flag exceeds the limit. */
const WORSE = 3;

function parseSeverity(text: string): number {
  const severity = Number(text);
  if (text.trim() === "" || !(severity >= 0 && severity <= 100)) {
    throw new InvalidArgumentError("How bad something may be is a number from 0 to 100.");
  }
  return severity;
}

async function check(files: readonly string[], { limit, json }: CheckOptions, terminal: Terminal): Promise<void> {
  let worse = 0;
  const lists = await Promise.all(files.map((file) => readReportFile(file, readFlags)));
  for (const [i, { of: name, rate, flags }] of lists.entries()) {
    const over = flags.filter(({ severity }) => severity > limit).length;
    worse += over;
    if (json) continue;
    terminal.print(`${files[i]}: ${name}, ${counted(flags.length, "flag")}, ${over} worse than ${limit}`);
    for (const { shot, start, end, severity, text } of flags.toSorted((a, b) => b.severity - a.severity)) {
      const place = `${formatTimecode(start, rate)} to ${formatTimecode(end, rate)}`;
      terminal.print(`  ${String(severity).padStart(3)}  shot ${shot}, ${place}: ${text}`);
    }
  }
  if (json) {
    terminal.print(
      JSON.stringify(
        lists.map(({ of: name, flags }, i) => ({ report: files[i], of: name, flags })),
        null,
        2,
      ),
    );
  }
  if (worse > 0) terminal.status = WORSE;
}

export const checkCommand = (terminal: Terminal): Command =>
  new Command("check")
    .description("print the flags of reports; exits 3 if any is worse than the limit")
    .argument("<reports...>", "JSON files that `convert`, `solve` or the page of flags has written")
    .option("--limit <severity>", "how bad a flag may be, from 0 to 100", parseSeverity, USUAL_LIMIT)
    .option("--json", "print them as JSON")
    .action((files: string[], options: CheckOptions) => check(files, options, terminal));
