/** Files that an export has written: by what each is known, and how they go without anything else going with them. */
import { rm, stat } from "node:fs/promises";
import { join } from "node:path";
import type { WrittenFile } from "~/db/job-work";
import { fingerprintOf } from "~/media/fingerprint.server";

async function written(folder: string, name: string): Promise<WrittenFile> {
  const file = join(folder, name);
  const { size, mtimeMs } = await stat(file);
  return { name, bytes: size, modifiedAt: mtimeMs, fingerprint: await fingerprintOf(file) };
}

/** Notes by what files are known that have just been written. */
export const noteWritten = (folder: string, names: readonly string[]): Promise<WrittenFile[]> =>
  Promise.all(names.map((name) => written(folder, name)));

/** Whether a file is still the one that was written under its name. */
async function isStill(folder: string, known: WrittenFile): Promise<boolean> {
  const now = await written(folder, known.name).catch(() => null);
  return now?.bytes === known.bytes && now.modifiedAt === known.modifiedAt && now.fingerprint === known.fingerprint;
}

/** Deletes files that were written; what has taken the place of one since is somebody else's, and stays. */
export async function deleteWritten(folder: string, files: readonly WrittenFile[]): Promise<void> {
  for (const known of files) if (await isStill(folder, known)) await rm(join(folder, known.name), { force: true });
}
