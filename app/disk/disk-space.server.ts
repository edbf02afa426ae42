import { existsSync, statfsSync } from "node:fs";
import { dirname } from "node:path";

/** There is no room for what was to be written; the message says where and how much there is. */
export class DiskFullError extends Error {
  override name = "DiskFullError";
}

/** Bytes that others of this machine's programs may need at any time; we leave them alone. */
const MARGIN_BYTES = 64 * 2 ** 20;

/** With less than this a failure to write is put down to the disk. */
const NOTHING_BYTES = 2 ** 20;

/** Bytes that can still be written to the file system that holds a path, which need not exist yet. */
export function freeBytes(path: string): number {
  let folder = path;
  while (!existsSync(folder) && dirname(folder) !== folder) folder = dirname(folder);
  const { bavail, bsize } = statfsSync(folder);
  return bavail * bsize;
}

const megabytes = (bytes: number): string => {
  const value = bytes / 1e6;
  return value < 1000 ? `${Math.floor(value)} MB` : `${(value / 1000).toFixed(1)} GB`;
};

/** "the disk is full: 3 MB free in data" */
export const diskFullMessage = (path: string, shown: string): string =>
  `the disk is full: ${megabytes(freeBytes(path))} free in ${shown}`;

/**
 * Makes sure that something will fit, before it is begun.
 *
 * @param what is going to be written, such as "the upload of kite.mp4"
 * @param shown how the folder is called in messages
 * @throws DiskFullError
 */
export function requireSpace(path: string, shown: string, bytes: number, what: string): void {
  const free = freeBytes(path);
  if (free >= bytes + MARGIN_BYTES) return;
  throw new DiskFullError(
    `not enough space for ${what}: it takes about ${megabytes(bytes + MARGIN_BYTES)}, and there are ${megabytes(free)} free in ${shown}. Free some space and try again.`,
  );
}

/** Whether something could not be written because the file system that holds `path` is full. */
export function isDiskFull(error: unknown, path: string): boolean {
  if (error instanceof DiskFullError) return true;
  const code = (error as { code?: unknown } | null)?.code;
  if (code === "ENOSPC" || code === "EDQUOT" || code === "SQLITE_FULL") return true;
  return typeof code === "string" && code.startsWith("SQLITE_IOERR") && freeBytes(path) < NOTHING_BYTES;
}
