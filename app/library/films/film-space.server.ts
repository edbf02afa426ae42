/** Disk usage of a film, by purpose. */
import { readdir, rm, stat } from "node:fs/promises";
import { join } from "node:path";
import type { FilmRow } from "~/db/films.server";
import { exportsFolder, filmFolder, partsFolder, proxyFolder } from "~/db/workplace.server";

export interface FilmSpace {
  /** The film's own file, where it is in the library; 0 where it is elsewhere. */
  source: number;
  /** The proxy, which is made again when it is needed. */
  proxy: number;
  /** Exported files, and rendered parts kept for the next export. */
  renders: number;
}

/** Bytes of a file; a file that is gone by now uses none. */
const sizeOf = (file: string): Promise<number> =>
  stat(file).then(
    ({ size }) => size,
    () => 0,
  );

/** Bytes of all files in a folder, at any depth; 0 where there is none. */
async function bytesIn(folder: string): Promise<number> {
  const entries = await readdir(folder, { withFileTypes: true, recursive: true }).catch(() => []);
  const files = entries.filter((entry) => entry.isFile());
  const sizes = await Promise.all(files.map((entry) => sizeOf(join(entry.parentPath, entry.name))));
  return sizes.reduce((sum, size) => sum + size, 0);
}

/** The film's own file, earlier ones, and one that may replace it. */
async function sourceBytes(id: string): Promise<number> {
  const folder = filmFolder(id);
  const files = await readdir(folder).catch(() => []);
  const sizes = files.filter((file) => file.startsWith("source")).map((file) => sizeOf(join(folder, file)));
  return (await Promise.all(sizes)).reduce((sum, size) => sum + size, 0);
}

export async function spaceOf({ id }: Pick<FilmRow, "id">): Promise<FilmSpace> {
  const [source, proxy, renders] = await Promise.all([
    sourceBytes(id),
    bytesIn(proxyFolder(id)),
    Promise.all([exportsFolder(id), partsFolder(id)].map(bytesIn)).then(([files, parts]) => files! + parts!),
  ]);
  return { source, proxy, renders };
}

export const clearLightCopy = (id: string): Promise<void> => rm(proxyFolder(id), { recursive: true, force: true });
export async function clearRenders(id: string): Promise<void> {
  for (const folder of [exportsFolder(id), partsFolder(id)]) await rm(folder, { recursive: true, force: true });
}
