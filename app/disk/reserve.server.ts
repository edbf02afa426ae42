import { existsSync, rmSync, statSync, writeFileSync } from "node:fs";
import { join } from "node:path";

/** Enough for the database to be opened, and for some changes of it. */
const RESERVE_BYTES = 4 * 2 ** 20;

const reserveFile = (folder: string) => join(folder, "reserve");

/** Keeps some space of a folder's file system for worse days; does nothing where there is none to keep. */
export function keepReserve(folder: string): void {
  const file = reserveFile(folder);
  if (existsSync(file) && statSync(file).size === RESERVE_BYTES) return;
  try {
    // Written out, because a file with holes takes no space.
    writeFileSync(file, Buffer.alloc(RESERVE_BYTES, 1));
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
