import { type ChildProcessByStdio, spawn, type StdioOptions } from "node:child_process";
import type { Readable, Writable } from "node:stream";

/** A tool such as ffmpeg ended in failure; `message` ends with the last thing it said. */
export class ToolError extends Error {
  override name = "ToolError";

  constructor(
    message: string,
    /** The end of what it said. */
    readonly said = "",
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
  /** Resolves when the tool has ended well; rejects with a ToolError or a CancelledError. */
  done: Promise<void>;
  kill(): void;
}

const KEPT_STDERR = 4000;

/**
 * Starts a tool with pipes for its input and output. Its error output is kept for the message of a failure.
 * When the signal is aborted, the tool is killed and `done` rejects with a CancelledError.
 */
export function startTool(command: string, args: string[], signal?: AbortSignal): RunningTool {
  const stdio: StdioOptions = ["pipe", "pipe", "pipe"];
  const child = spawn(command, args, { stdio }) as ChildProcessByStdio<Writable, Readable, Readable>;
  let said = "";
  child.stderr.setEncoding("utf8").on("data", (text: string) => {
    said = (said + text).slice(-KEPT_STDERR);
  });
  // Without listeners, writing to a tool that has gone would end this process; `done` tells of it.
  child.stdin.on("error", () => {});
  child.stdout.on("error", () => {});
  const kill = () => void child.kill("SIGKILL");
  signal?.addEventListener("abort", kill, { once: true });
  if (signal?.aborted) kill();
  const done = new Promise<void>((resolve, reject) => {
    child.on("error", (error) => reject(new ToolError(`${command} could not be started: ${error.message}`)));
    child.on("close", (code) => {
      signal?.removeEventListener("abort", kill);
      if (signal?.aborted) reject(new CancelledError());
      else if (code === 0) resolve();
      else reject(new ToolError(`${command} failed: ${said.trim().split("\n").at(-1) || `exit ${code}`}`, said));
    });
  });
  // Whoever kills a tool on purpose may never await `done`.
  done.catch(() => {});
  return { stdin: child.stdin, stdout: child.stdout, done, kill };
}

/** Runs a tool to its end and returns what it wrote to its standard output. */
export async function runTool(command: string, args: string[], signal?: AbortSignal): Promise<string> {
  const tool = startTool(command, args, signal);
  tool.stdin.end();
  let output = "";
  tool.stdout.setEncoding("utf8").on("data", (text: string) => {
    output += text;
  });
  await tool.done;
  return output;
}
