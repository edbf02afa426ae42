import { randomUUID } from "node:crypto";
import { copyFile, link, mkdir, open, rename, rm } from "node:fs/promises";
import { dirname, extname, join, parse } from "node:path";
import { namesLike } from "~/core/formats/file-names";

/** Names made by `asideName`; such a file without its writer may be removed. */
const ASIDE = /^\.[\da-f-]{36}\.part(\.\w+)?$/;

/**
 * A name beside `file` under which it is written first. The extension stays, since tools go by it; the name may be long.
 */
const asideName = (file: string): string => join(dirname(file), `.${randomUUID()}.part${extname(file)}`);

export const isAside = (name: string): boolean => ASIDE.test(name);

/** Waits until a file's content, or a folder's list of names, would survive a loss of power. */
async function sync(path: string): Promise<void> {
  const handle = await open(path, "r");
  try {
    await handle.sync();
  } finally {
    await handle.close();
  }
}

/** Renames a finished file durably: the content is on the disk before the name is, and the name before this returns. */
async function settle(from: string, to: string): Promise<void> {
  await sync(from);
  await rename(from, to);
  await sync(dirname(to));
}

/**
 * Lets `write` make a file under another name and renames it only when that has succeeded, so that a half-written file is
 * never taken for a finished one, whenever this process or the machine ends.
 * @returns what `write` returns
 */
export async function writeAside<T>(file: string, write: (aside: string) => Promise<T>): Promise<T> {
  await mkdir(dirname(file), { recursive: true });
  const aside = asideName(file);
  try {
    const result = await write(aside);
    await settle(aside, file);
    return result;
  } finally {
    await rm(aside, { force: true });
  }
}

/** Gives a finished file an unused name; returns false if the name is taken. */
async function settleFree(from: string, to: string): Promise<boolean> {
  await sync(from);
  try {
    await link(from, to);
  } catch (error) {
    const { code } = error as NodeJS.ErrnoException;
    if (code === "EEXIST") return false;
    // Without hard links, the name is claimed by an empty file, which is then replaced.
    try {
      await (await open(to, "wx")).close();
    } catch (taken) {
      if ((taken as NodeJS.ErrnoException).code === "EEXIST") return false;
      throw taken;
    }
    await rename(from, to);
  }
  await sync(dirname(to));
  return true;
}

/**
 * The same without replacing anything: the finished file gets the first unused name of several.
 * @param folder of the names
 * @param names in order, endlessly
 * @returns its name, and what `write` returns
 */
export async function writeAsideFree<T>(
  folder: string,
  names: Iterable<string>,
  write: (aside: string) => Promise<T>,
): Promise<{ name: string; result: T }> {
  await mkdir(folder, { recursive: true });
  let aside: string | null = null;
  try {
    let result: T;
    for (const name of names) {
      if (aside === null) {
        aside = asideName(join(folder, name));
        result = await write(aside);
      }
      if (await settleFree(aside, join(folder, name))) return { name, result: result! };
    }
    throw new Error(`no name is free in ${folder}`);
  } finally {
    if (aside !== null) await rm(aside, { force: true });
  }
}

/**
 * Lets `write` make a whole file under a name or, where that is taken and must not be replaced, the same with a number.
 * @returns the name it was given, and what `write` returns
 */
export async function writeNamed<T>(
  file: string,
  replaces: boolean,
  write: (aside: string) => Promise<T>,
): Promise<{ name: string; result: T }> {
  const { base, dir, ext, name } = parse(file);
  if (replaces) return { name: base, result: await writeAside(file, write) };
  return writeAsideFree(dir, namesLike(name, ext), write);
}

/**
 * Gives `work` a temporary file in a folder, which is removed afterwards.
 * @param extension including the dot; empty for none
 */
export async function withScratchFile<T>(
  folder: string,
  extension: string,
  work: (file: string) => Promise<T>,
): Promise<T> {
  await mkdir(folder, { recursive: true });
  const file = asideName(join(folder, `scratch${extension}`));
  try {
    return await work(file);
  } finally {
    await rm(file, { force: true });
  }
}

/** Gives `work` a temporary folder beside a file, which is removed with its content. */
export async function withFolderBeside<T>(file: string, work: (folder: string) => Promise<T>): Promise<T> {
  await mkdir(dirname(file), { recursive: true });
  const folder = asideName(join(dirname(file), "scratch"));
  await mkdir(folder);
  try {
    return await work(folder);
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

/** Copies a file; there is never a part of it under its name. */
export const copyWhole = (from: string, to: string): Promise<void> => writeAside(to, (aside) => copyFile(from, aside));

/** Gives a file that is never written to a second name, by a hard link or, where that is impossible, a copy. */
export async function shareFile(from: string, to: string): Promise<void> {
  await mkdir(dirname(to), { recursive: true });
  await link(from, to).catch(() => copyWhole(from, to));
}

/** Moves a file, even to another file system, where it cannot be renamed. */
export async function moveWhole(from: string, to: string): Promise<void> {
  await mkdir(dirname(to), { recursive: true });
  try {
    await settle(from, to);
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== "EXDEV") throw error;
    await copyWhole(from, to);
    await rm(from);
  }
}
