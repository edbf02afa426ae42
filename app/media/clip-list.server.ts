/** Several files read as one film: a list in ffmpeg's format, beside the files that it names. */
import { readFileSync } from "node:fs";
import { writeFile } from "node:fs/promises";
import { basename, dirname, join } from "node:path";
import { frameToSeconds, type Rate } from "~/core/time/rate";
import { writeAside } from "~/disk/write-aside.server";

/** Only files of this name are read as lists: any other might lead elsewhere. */
const LIST_NAME = /^source-[\w-]{1,40}\.ffconcat$/;

export const listName = (id: string): string => `source-${id}.ffconcat`;

export const isClipList = (file: string): boolean => LIST_NAME.test(basename(file));

/** Writes a list of files into their folder, with the number of frames of each. */
export async function writeClipList(
  list: string,
  files: readonly { name: string; frames: number }[],
  rate: Rate,
): Promise<void> {
  const entries = files.map(
    ({ name, frames }) => `file ${name}\nduration ${frameToSeconds(frames, rate).toFixed(6)}\n`,
  );
  await writeAside(list, (aside) => writeFile(aside, `ffconcat version 1.0\n${entries.join("")}`));
}

/** The files named by a list, with their paths. */
export function filesInList(list: string): string[] {
  const names = [...readFileSync(list, "utf8").matchAll(/^file ([\w.-]+)$/gm)].map((match) => match[1]!);
  return names.map((name) => join(dirname(list), name));
}
