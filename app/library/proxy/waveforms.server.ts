import { existsSync } from "node:fs";
import { mkdir, writeFile } from "node:fs/promises";
import { join } from "node:path";
import type { FilmRow } from "~/db/films.server";
import { writeAside } from "~/disk/write-aside.server";
import { waveformOf } from "~/media/waveform.server";
import { requireSource } from "~/library/films/require-source.server";
import { proxyFolder, sourceFile } from "~/db/workplace.server";

/** Those being made, by file: further requests wait for the same one. */
const making = new Map<string, Promise<void>>();

/**
 * The waveform of a film's sound, a byte per frame; made at first use, and deleted with the proxy.
 * @returns null for a film without sound
 */
export async function waveformFile(film: FilmRow): Promise<string | null> {
  const { id, name, info } = film;
  if (!info.audio) return null;
  const folder = proxyFolder(id);
  const file = join(folder, `waveform-${info.audio.index}.bin`);
  if (existsSync(file)) return file;
  requireSource(film);
  const made = making.get(file) ?? make();
  making.set(file, made);
  await made.finally(() => making.delete(file));
  return file;

  async function make(): Promise<void> {
    const peaks = await waveformOf({ file: sourceFile(film), name, info });
    await mkdir(folder, { recursive: true });
    await writeAside(file, (aside) => writeFile(aside, peaks));
  }
}
