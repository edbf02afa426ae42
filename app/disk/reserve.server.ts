import { existsSync, rmSync, statSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { freeBytes } from "./disk-space.server";

/** Enough to open the database, and to store the state of jobs. */
const RESERVE_BYTES = 4 * 2 ** 20;
/** Left free for other writes where there is less. */
const LEFT_BYTES = 2 ** 19;

const reserveFile = (folder: string) => join(folder, "reserve");

/** Reserves some disk space in a folder for a start on a full disk, as much as there is. */
export function keepReserve(folder: string): void {
  const file = reserveFile(folder);
  const kept = existsSync(file) ? statSync(file).size : 0;
  const bytes = Math.min(RESERVE_BYTES, freeBytes(folder) + kept - LEFT_BYTES);
  if (bytes <= kept) return;
  try {
    // Written out, because a sparse file takes no space.
    writeFileSync(file, Buffer.alloc(bytes, 1));
  } catch {
    rmSync(file, { force: true });
  }
}

/** Releases the reserved space; false if there was none. */
export function spendReserve(folder: string): boolean {
  if (!existsSync(reserveFile(folder))) return false;
  rmSync(reserveFile(folder));
  return true;
}
