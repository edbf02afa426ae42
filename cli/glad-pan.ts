/** The command line as a program. */
import { run } from "./main";
import { Terminal } from "./terminal";

process.exitCode = await run(process.argv.slice(2), new Terminal(process.stdout, process.stderr));
