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

/** A tool such as ffmpeg ended in failure; `message` ends with the last thing it said that means anything. */
export class ToolError extends Error {
  override name = "ToolError";

  constructor(
    message: string,
    /** The end of what it said. */
    readonly said = "",
    /** "ENOSPC" if it could not write for want of space, "STALLED" if it was stopped because nothing came of it. */
    readonly code?: "ENOSPC" | "STALLED",
  ) {
    super(message);
  }
}

/** The work was stopped because somebody asked for it. */
export class CancelledError extends Error {
  override name = "CancelledError";
  constructor() {
    super("cancelled");
  }
}

export interface RunningTool {
  stdin: Writable;
  stdout: Readable;
  /** The end of what it has said so far. */
  said: () => string;
  /** Resolves when the tool has ended well; rejects with a ToolError or a CancelledError. */
  done: Promise<void>;
  kill(): void;
}

const KEPT_STDERR = 4000;
/** A tool that has neither written nor taken anything for so long will not. */
const STALL_SECONDS = 60;
/** How often it is looked at within that time. */
const STALL_LOOKS = 12;
/** The exit code of what starts tools for us if there is no such tool. */
const NOT_STARTED = 127;
/** What nobody reads as text is longer than this. */
const MAX_OUTPUT_CHARS = 64 * 2 ** 20;

/** Lines that tell nothing, and what stands before those that do: "[mov,mp4 @ 0x55d0]", "file:/films/kite.mp4:". */
const EMPTY_WORDS = /^\s*(last message repeated|conversion failed|error while (decoding|filtering)|exiting)/i;
const PREFIX = /^(\[[^\]]*\]\s*)+|^(file|pipe):.*?:\s+/g;

/** The last thing that ffmpeg said that means anything; "" if there is none. */
export function lastWords(said: string): string {
  const lines = said.split(/[\r\n]+/).map((line) => line.replaceAll(PREFIX, "").trim());
  return lines.findLast((line) => line !== "" && !EMPTY_WORDS.test(line)) ?? "";
}

/** Bytes that a process has handed to the system to write, by Linux's own count; 0 where there is none. */
function bytesWritten(pid: number): number {
  try {
    return Number(/^wchar: (\d+)/m.exec(readFileSync(`/proc/${pid}/io`, "utf8"))?.[1] ?? 0);
  } catch {
    return 0;
  }
}

/**
 * Calls back once if a tool gets nowhere: it writes nothing and takes nothing, though we wait for it and it does not
 * wait for us.
 */
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
 * Starts a process that ends with this one, however this one ends: Linux kills it when the thread that has started it
 * is gone (prctl(2), PR_SET_PDEATHSIG).
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

/** Where a tool writes remarks of its own, beside its output. */
export const REMARKS = 3;

export interface ToolOptions {
  /** A tool that gets nowhere for so long is killed. */
  stallSeconds?: number;
  /** Takes each line that the tool writes to its pipe for remarks. */
  onRemark?: (line: string) => void;
}

/**
 * Starts a tool with pipes for its input and output. Its error output is kept for the message of a failure.
 * When the signal is aborted, the tool is killed and `done` rejects with a CancelledError; when it gets nowhere for a
 * minute, it is killed as well.
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
  // Without listeners, writing to a tool that has gone would end this process; `done` tells of it.
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
      else if (code === 0) resolve();
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

/** Hands a tool something to read, as quickly as it takes it; rejects as `done` does once the tool has gone. */
export async function writeTo({ stdin, done }: RunningTool, data: Buffer): Promise<void> {
  if (stdin.write(data)) return;
  // A tool that has gone breaks the pipe first; why it has gone is for `done` to say.
  const drained = once(stdin, "drain").catch(() => done);
  await Promise.race([drained, done]);
}

/**
 * Runs a tool to its end and returns what it wrote to its standard output.
 *
 * @throws ToolError also if that is more than anybody could want
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
