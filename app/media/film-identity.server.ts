import { statSync } from "node:fs";
import type { FilmFile } from "./film-file";

/** What tells a film's file from another that was, or will be, in its place; the same on machines that share a disk. */
export function identityOf({ file }: Pick<FilmFile, "file">): string {
  const { size, mtimeMs } = statSync(file);
  return `${size} ${mtimeMs}`;
}
