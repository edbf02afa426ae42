/**
 * Reads foreign files in a process with limits on time and memory: a file made to be hard to read fails by itself, and
 * affects nobody else.
 */
import { FileRefusal } from "~/core/basics/refusal";
import { spawnBound } from "../tool.server";
import { builtFile } from "../worker-thread.server";
import { type Answered, type Asked, asError, type Found, type TaskName, type Tasks, TASKS } from "./tasks";
import { ownFileErrors } from "~/texts/own-file-errors";

/** Several times as long as an ordinary file takes on a slow machine. */
const MOST_MS = 10_000;
/** Megabytes of JavaScript memory. */
const MOST_MEMORY = 768;

/**
 * @param name of the file
 * @throws what reading it throws; a Refusal if it takes too long, or too much memory
 */
export function apart<Name extends TaskName>(
  task: Name,
  name: string,
  ...args: Parameters<Tasks[Name]>
): Promise<Found<Name>> {
  const entry = builtFile("apart.js");
  // Without a build, in development and unit tests, it is read here.
  if (entry === null) return (TASKS[task] as (...args: unknown[]) => Promise<Found<Name>>)(...args);
  const child = spawnBound(
    process.execPath,
    [`--max-old-space-size=${MOST_MEMORY}`, entry],
    ["ignore", "ignore", "ignore", "ipc"],
    "advanced",
  );
  const answered = new Promise<Found<Name>>((resolve, reject) => {
    child.once("message", (answer: Answered) => {
      if ("refused" in answer) reject(asError(answer.refused));
      else resolve(answer.found as Found<Name>);
    });
    const tooHard = () => reject(new FileRefusal(ownFileErrors.reading.takesTooLong(name)));
    // A process that runs out of memory ends without an answer.
    child.once("exit", tooHard);
    child.once("error", reject);
    setTimeout(tooHard, MOST_MS).unref();
    child.send({ task, args } satisfies Asked, (error) => error && reject(error));
  });
  return answered.finally(() => child.kill("SIGKILL"));
}
