import { statSync } from "node:fs";
import type { FilmFile } from "./film-file";

/** Distinguishes a film's file from others at the same path; equal on machines that share a disk. */
export function identityOf({ file }: Pick<FilmFile, "file">): string {
  const { size, mtimeMs } = statSync(file);
  return `${size} ${mtimeMs}`;
}
