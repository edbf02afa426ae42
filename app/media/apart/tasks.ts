/** Reading of foreign files that may take long: see `apart`. */
import { readCaptions } from "~/core/captions/read-captions";
import { ProjectError, readProject } from "~/core/formats/project";
import { Refusal } from "~/core/basics/refusal";
import { OwnFileError } from "../own/own-file";
import { readPicture } from "../own/read-picture.server";

export const TASKS = {
  captions: readCaptions,
  project: readProject,
  picture: async (bytes: Uint8Array, name: string) => {
    const picture = await readPicture(Buffer.from(bytes), name);
    return { ...picture, bytes: new Uint8Array(picture.bytes) };
  },
};
export type Tasks = typeof TASKS;
export type TaskName = keyof Tasks;
export type Found<Name extends TaskName> = Awaited<ReturnType<Tasks[Name]>>;

/** Request and answer of a process. */
export interface Asked {
  task: TaskName;
  args: unknown[];
}
export type Answered = { found: unknown } | { refused: { name: string; message: string } };

/** Errors that describe what is wrong with a file, by name. */
const REFUSALS = new Map<string, new (message: string) => Error>([
  ["Refusal", Refusal],
  ["ProjectError", ProjectError],
  ["OwnFileError", OwnFileError],
]);

/** An error from another process, with its class restored. */
export function asError({ name, message }: { name: string; message: string }): Error {
  const Known = REFUSALS.get(name) ?? Error;
  return new Known(message);
}
