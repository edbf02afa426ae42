import {
  type ChildProcess,
  type ChildProcessByStdio,
  type SerializationType,
  spawn,
  type StdioOptions,
} from "node:child_process";
import { once } from "node:events";
import { readFileSync } from "node:fs";
import { createInterface } from "node:readline";
import type { Readable, Writable } from "node:stream";

/** A tool such as ffmpeg failed; `message` ends with its last meaningful line. */
export class ToolError extends Error {
  override name = "ToolError";

  constructor(
    message: string,
    /** The end of its error output. */
    readonly said = "",
    /** "ENOSPC" if it had no disk space, "STALLED" if it was stopped for lack of progress. */
    readonly code?: "ENOSPC" | "STALLED",
  ) {
    super(message);
  }
}

/** The work was cancelled. */
export class CancelledError extends Error {
  override name = "CancelledError";
  constructor() {
    super("cancelled");
  }
}

export interface RunningTool {
  stdin: Writable;
  stdout: Readable;
  /** The end of its error output so far. */
  said: () => string;
  /** Resolves when the tool has succeeded; rejects with a ToolError or a CancelledError. */
  done: Promise<void>;
  kill(): void;
}

const KEPT_STDERR = 4000;
/** Seconds without input or output after which a tool is stalled. */
const STALL_SECONDS = 60;
/** Number of checks within that time. */
const STALL_LOOKS = 12;
/** Exit code of the launcher if there is no such tool. */
const NOT_STARTED = 127;
/** Most characters of output; nobody reads more as text. */
const MAX_OUTPUT_CHARS = 64 * 2 ** 20;

/** Lines without information, and prefixes of others: "[mov,mp4 @ 0x55d0]", "file:/films/kite.mp4:". */
const EMPTY_WORDS = /^\s*(last message repeated|conversion failed|error while (decoding|filtering)|exiting)/i;
const PREFIX = /^(\[[^\]]*\]\s*)+|^(file|pipe):.*?:\s+/g;

/** What ffmpeg says when the end of a file could not be written. It exits with 0 all the same (5.1). */
const UNFINISHED = /^Error (writing trailer of|closing file) (?!pipe:)/m;

/** The last meaningful line of ffmpeg's output; "" if there is none. */
export function lastWords(said: string): string {
  const lines = said.split(/[\r\n]+/).map((line) => line.replaceAll(PREFIX, "").trim());
  return lines.findLast((line) => line !== "" && !EMPTY_WORDS.test(line)) ?? "";
}

/** Bytes that a process has written, by Linux's own count; 0 on other systems. */
function bytesWritten(pid: number): number {
  try {
    return Number(/^wchar: (\d+)/m.exec(readFileSync(`/proc/${pid}/io`, "utf8"))?.[1] ?? 0);
  } catch {
    return 0;
  }
}

/** Calls back once if a tool stalls: it writes nothing and reads nothing, though it is not waiting for us. */
function watchForStall(
  child: ChildProcessByStdio<Writable, Readable, Readable>,
  seconds: number,
  onStall: () => void,
): void {
  let last = -1;
  let idle = 0;
  const timer = setInterval(
    () => {
      const { stdin, stdout } = child;
      const taken = "bytesWritten" in stdin ? Number(stdin.bytesWritten) : 0;
      const moved = bytesWritten(child.pid!) + taken;
      const waitsForUs = stdout.readableLength > 0 || (!stdin.writableEnded && stdin.writableLength === 0);
      idle = moved !== last || waitsForUs ? 0 : idle + 1;
      last = moved;
      if (idle < STALL_LOOKS) return;
      clearInterval(timer);
      onStall();
    },
    (seconds * 1000) / STALL_LOOKS,
  );
  timer.unref();
  child.once("close", () => clearInterval(timer));
  child.once("error", () => clearInterval(timer));
}

/**
 * Starts a process that ends with this one, however this one ends: Linux kills it when the thread that started it is gone
 * (prctl(2), PR_SET_PDEATHSIG).
 */
export const spawnBound = (
  command: string,
  args: string[],
  stdio: StdioOptions,
  serialization: SerializationType = "json",
): ChildProcess =>
  process.platform === "linux"
    ? spawn("setpriv", ["--pdeathsig", "KILL", "--", command, ...args], { stdio, serialization })
    : spawn(command, args, { stdio, serialization });

/** File descriptor for a tool's own remarks, beside its output. */
export const REMARKS = 3;

export interface ToolOptions {
  /** Seconds without progress after which the tool is killed. */
  stallSeconds?: number;
  /** Called with each line on the descriptor for remarks. */
  onRemark?: (line: string) => void;
}

/**
 * Starts a tool with pipes for its input and output. Its error output is kept for the message of a failure. When the signal
 * is aborted, the tool is killed and `done` rejects with a CancelledError; when it stalls for a minute, it is killed as
 * well.
 */
export function startTool(
  command: string,
  args: string[],
  signal?: AbortSignal,
  { stallSeconds = STALL_SECONDS, onRemark }: ToolOptions = {},
): RunningTool {
  const pipes = Array.from({ length: onRemark ? REMARKS + 1 : REMARKS }, () => "pipe" as const);
  const child = spawnBound(command, args, pipes) as ChildProcessByStdio<Writable, Readable, Readable>;
  if (onRemark) createInterface({ input: child.stdio[REMARKS] as Readable }).on("line", onRemark);
  let said = "";
  let stalled = false;
  child.stderr.setEncoding("utf8").on("data", (text: string) => {
    said = (said + text).slice(-KEPT_STDERR);
  });
  // Without a listener, writing to an ended tool would end this process; `done` reports it.
  child.stdin.on("error", () => {});
  child.stdout.on("error", () => {});
  const kill = () => void child.kill("SIGKILL");
  signal?.addEventListener("abort", kill, { once: true });
  if (signal?.aborted) kill();
  watchForStall(child, stallSeconds, () => {
    stalled = true;
    kill();
  });
  const done = new Promise<void>((resolve, reject) => {
    child.on("error", (error) => reject(new ToolError(`${command} could not be started: ${error.message}`)));
    child.on("close", (code) => {
      signal?.removeEventListener("abort", kill);
      if (signal?.aborted) reject(new CancelledError());
      else if (stalled) reject(new ToolError(`${command} got nowhere and was stopped`, said, "STALLED"));
      else if (code === 0 && !UNFINISHED.test(said)) resolve();
      else if (code === NOT_STARTED && /^setpriv: failed to execute/.test(said)) {
        reject(new ToolError(`${command} could not be started: ${lastWords(said)}`));
      } else {
        const full = /No space left on device/.test(said) ? "ENOSPC" : undefined;
        reject(new ToolError(`${command} failed: ${lastWords(said) || `exit ${code}`}`, said, full));
      }
    });
  });
  // Whoever kills a tool on purpose may never await `done`.
  done.catch(() => {});
  return { stdin: child.stdin, stdout: child.stdout, said: () => said, done, kill };
}

/** Writes to a tool as fast as it reads; rejects as `done` does once the tool has ended. */
export async function writeTo({ stdin, done }: RunningTool, data: Buffer): Promise<void> {
  if (stdin.write(data)) return;
  // An ended tool breaks the pipe first; `done` has the reason.
  const drained = once(stdin, "drain").catch(() => done);
  await Promise.race([drained, done]);
}

/**
 * Runs a tool to its end and returns its standard output.
 * @throws ToolError also if that is unreasonably long
 */
export async function runTool(command: string, args: string[], signal?: AbortSignal): Promise<string> {
  const tool = startTool(command, args, signal);
  tool.stdin.end();
  let output = "";
  tool.stdout.setEncoding("utf8").on("data", (text: string) => {
    output += text;
    if (output.length > MAX_OUTPUT_CHARS) tool.kill();
  });
  await tool.done.catch((error: unknown) => {
    throw output.length > MAX_OUTPUT_CHARS ? new ToolError(`${command} had too much to say`) : error;
  });
  return output;
}
