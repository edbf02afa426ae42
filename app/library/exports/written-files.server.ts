/** Files written by an export: how each is identified, and how they are deleted without deleting anything else. */
import { rm, stat } from "node:fs/promises";
import { join } from "node:path";
import type { WrittenFile } from "~/db/job-work";
import { fingerprintOf } from "~/media/fingerprint.server";

async function written(folder: string, name: string): Promise<WrittenFile> {
  const file = join(folder, name);
  const { size, mtimeMs } = await stat(file);
  return { name, bytes: size, modifiedAt: mtimeMs, fingerprint: await fingerprintOf(file) };
}

/** Identities of newly written files. */
export const noteWritten = (folder: string, names: readonly string[]): Promise<WrittenFile[]> =>
  Promise.all(names.map((name) => written(folder, name)));

/** Whether a file is still the one written under its name. */
async function isStill(folder: string, known: WrittenFile): Promise<boolean> {
  const now = await written(folder, known.name).catch(() => null);
  return now?.bytes === known.bytes && now.modifiedAt === known.modifiedAt && now.fingerprint === known.fingerprint;
}

/** Deletes written files; a file that has replaced one since belongs to somebody else, and stays. */
export async function deleteWritten(folder: string, files: readonly WrittenFile[]): Promise<void> {
  for (const known of files) if (await isStill(folder, known)) await rm(join(folder, known.name), { force: true });
}
