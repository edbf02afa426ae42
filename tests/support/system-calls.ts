/** What a program asks of the system, as strace writes it down. */
import { spawnSync } from "node:child_process";
import { readFileSync } from "node:fs";

export interface SystemCall {
  name: string;
  /** As strace shows them. */
  args: string;
  /** What it gave back; for a file its number and path, as in "20</tmp/kite.mp4>". */
  result: string;
}

/** Whether programs can be watched here at all: some containers allow it to nobody. */
export const canTrace = (): boolean => spawnSync("strace", ["--output=/dev/null", "true"]).status === 0;

/** Lets strace write the calls of a program and all that it starts into a file. */
export const tracing = (calls: readonly string[], log: string): string[] => [
  // The program stays our own child, which can be stopped as ever.
  ...["strace", "--daemonize", "--follow-forks", "--seccomp-bpf", "--quiet=all", "--decode-fds=path"],
  ...["--string-limit=4096", `--trace=${calls.join(",")}`, `--output=${log}`],
];

const CALL = /^\d+ +(\w+)\((.*)\) += (.*)$/s;

/** The calls of a log, whose lines may be cut in two where another thread came between. */
export function readCalls(log: string): SystemCall[] {
  const begun = new Map<string, string>();
  return readFileSync(log, "utf8")
    .split("\n")
    .flatMap((line) => {
      const [pid] = /^\d+/.exec(line) ?? [""];
      if (line.endsWith("<unfinished ...>")) {
        begun.set(pid, line.slice(0, -"<unfinished ...>".length));
        return [];
      }
      const resumed = /<\.\.\. \w+ resumed>(.*)$/s.exec(line);
      const [, name, args, result] = CALL.exec(resumed ? `${begun.get(pid)}${resumed[1]}` : line) ?? [];
      return name === undefined ? [] : [{ name, args: args!, result: result! }];
    });
}
