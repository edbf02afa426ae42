import { existsSync, rmSync, statSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { freeBytes } from "./disk-space.server";

/** Enough for the database to be opened, and to note what was under way. */
const RESERVE_BYTES = 4 * 2 ** 20;
/** What is left for that where there is less. */
const LEFT_BYTES = 2 ** 19;

const reserveFile = (folder: string) => join(folder, "reserve");

/** Keeps some space of a folder's file system for a start on a full disk, as much of it as there is. */
export function keepReserve(folder: string): void {
  const file = reserveFile(folder);
  const kept = existsSync(file) ? statSync(file).size : 0;
  const bytes = Math.min(RESERVE_BYTES, freeBytes(folder) + kept - LEFT_BYTES);
  if (bytes <= kept) return;
  try {
    // Written out, because a file with holes takes no space.
    writeFileSync(file, Buffer.alloc(bytes, 1));
  } catch {
    rmSync(file, { force: true });
  }
}

/** Gives the kept space up; false if there was none. */
export function spendReserve(folder: string): boolean {
  if (!existsSync(reserveFile(folder))) return false;
  rmSync(reserveFile(folder));
  return true;
}
