import { existsSync, statfsSync } from "node:fs";
import { dirname } from "node:path";
import { formatBytes } from "~/core/numbers/bytes";
import { libraryErrors } from "~/texts/library-errors";

const t = libraryErrors.space;

/** There is no room for what was to be written; the message says where and how much there is. */
export class DiskFullError extends Error {
  override name = "DiskFullError";
}

/** Bytes that others of this machine's programs may need at any time; we leave them alone. Less on small disks. */
const MARGIN_BYTES = 64 * 2 ** 20;
const MARGIN_SHARE = 0.05;

/** With less than so many margins it is time to say so, and with less than this part of one nothing can be written. */
const LOW_MARGINS = 2;
const FULL_MARGINS = 1 / 16;

/** With less than this a failure to write is put down to the disk. */
const NOTHING_BYTES = 2 ** 20;

/** Bytes that can still be written to the file system that holds a path, which need not exist yet, and our margin. */
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

/** What to say on every page about the space that is left; null while there is enough. */
export function lowSpaceMessage(path: string, shown: string): string | null {
  const { free, margin } = spaceAt(path);
  if (free >= LOW_MARGINS * margin) return null;
  if (free >= FULL_MARGINS * margin) return t.isLow(megabytes(free), shown);
  return t.cannotSave(megabytes(free), shown);
}

/**
 * Makes sure that something will fit, before it is begun.
 *
 * @param what is going to be written, such as "the upload of kite.mp4"
 * @param shown how the folder is called in messages
 * @throws DiskFullError
 */
export function requireSpace(path: string, shown: string, bytes: number, what: string): void {
  const { free, margin } = spaceAt(path);
  if (free >= bytes + margin) return;
  throw new DiskFullError(t.notEnough(what, megabytes(bytes + margin), megabytes(free), shown));
}

/** Whether nothing more goes on the file system that holds `path`. */
export const isFull = (path: string): boolean => freeBytes(path) < NOTHING_BYTES;

/** Whether something could not be written because the file system that holds `path` is full. */
export function isDiskFull(error: unknown, path: string): boolean {
  if (error instanceof DiskFullError) return true;
  const code = (error as { code?: unknown } | null)?.code;
  if (code === "ENOSPC" || code === "EDQUOT" || code === "SQLITE_FULL") return true;
  return typeof code === "string" && code.startsWith("SQLITE_IOERR") && isFull(path);
}
