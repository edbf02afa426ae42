import { existsSync, statfsSync } from "node:fs";
import { dirname } from "node:path";
import { formatBytes } from "~/core/numbers/bytes";
import { libraryErrors } from "~/texts/library-errors";

const t = libraryErrors.space;

/** There was not enough disk space; the message says where and how much is left. */
export class DiskFullError extends Error {
  override name = "DiskFullError";
}

/** Bytes that other programs on this machine may need at any time, which we leave free. Less on small disks. */
const MARGIN_BYTES = 64 * 2 ** 20;
const MARGIN_SHARE = 0.05;

/** Multiples of the margin below which a notice is shown, and the part of it below which nothing can be written. */
const LOW_MARGINS = 2;
const FULL_MARGINS = 1 / 16;

/** Free bytes below which a failure to write is attributed to the disk. */
const NOTHING_BYTES = 2 ** 20;

/** Bytes that can still be written to the file system of a path, which need not exist yet, and our margin. */
function spaceAt(path: string): { free: number; margin: number } {
  let folder = path;
  while (!existsSync(folder) && dirname(folder) !== folder) folder = dirname(folder);
  const { bavail, blocks, bsize } = statfsSync(folder);
  return { free: bavail * bsize, margin: Math.min(MARGIN_BYTES, MARGIN_SHARE * blocks * bsize) };
}

export const freeBytes = (path: string): number => spaceAt(path).free;

const megabytes = (bytes: number): string => formatBytes(bytes, "MB");

/** "the disk is full: 3 MB free in data" */
export const diskFullMessage = (path: string, shown: string): string => t.isFull(megabytes(freeBytes(path)), shown);

/** The notice on every page about scarce disk space; null while there is enough. */
export function lowSpaceMessage(path: string, shown: string): string | null {
  const { free, margin } = spaceAt(path);
  if (free >= LOW_MARGINS * margin) return null;
  if (free >= FULL_MARGINS * margin) return t.isLow(megabytes(free), shown);
  return t.cannotSave(megabytes(free), shown);
}

/**
 * Makes sure that something will fit, before it is begun.
 * @param what is going to be written, such as "the upload of kite.mp4"
 * @param shown name of the folder in messages
 * @throws DiskFullError
 */
export function requireSpace(path: string, shown: string, bytes: number, what: string): void {
  const { free, margin } = spaceAt(path);
  if (free >= bytes + margin) return;
  throw new DiskFullError(t.notEnough(what, megabytes(bytes + margin), megabytes(free), shown));
}

/** Whether the file system of `path` is full. */
export const isFull = (path: string): boolean => freeBytes(path) < NOTHING_BYTES;

/** Whether writing failed because the file system of `path` is full. */
export function isDiskFull(error: unknown, path: string): boolean {
  if (error instanceof DiskFullError) return true;
  const code = (error as { code?: unknown } | null)?.code;
  if (code === "ENOSPC" || code === "EDQUOT" || code === "SQLITE_FULL") return true;
  return typeof code === "string" && code.startsWith("SQLITE_IOERR") && isFull(path);
}
