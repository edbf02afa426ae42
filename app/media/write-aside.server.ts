import { randomUUID } from "node:crypto";
import { mkdir, rename, rm } from "node:fs/promises";
import { basename, dirname, join } from "node:path";

/**
 * Lets `write` make a file under another name and gives it its real name only when that has gone well, so that
 * a half-written file is never taken for a finished one. The extension stays, since tools go by it.
 */
export async function writeAside(file: string, write: (aside: string) => Promise<void>): Promise<void> {
  await mkdir(dirname(file), { recursive: true });
  const aside = join(dirname(file), `.${randomUUID()}.part.${basename(file)}`);
  try {
    await write(aside);
    await rename(aside, file);
  } finally {
    await rm(aside, { force: true });
  }
}
