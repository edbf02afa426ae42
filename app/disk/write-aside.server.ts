import { randomUUID } from "node:crypto";
import { copyFile, link, mkdir, open, rename, rm } from "node:fs/promises";
import { dirname, extname, join, parse } from "node:path";
import { namesLike } from "~/core/formats/file-names";

/** What `asideName` makes; whoever finds such a file without its writer may remove it. */
const ASIDE = /^\.[\da-f-]{36}\.part(\.\w+)?$/;

/** A name beside `file` under which it is written. The extension stays, since tools go by it; the name may be long. */
const asideName = (file: string): string => join(dirname(file), `.${randomUUID()}.part${extname(file)}`);

export const isAside = (name: string): boolean => ASIDE.test(name);

/** Waits until what was written to a file, or to a folder's list of names, would survive a loss of power. */
async function sync(path: string): Promise<void> {
  const handle = await open(path, "r");
  try {
    await handle.sync();
  } finally {
    await handle.close();
  }
}

/** Gives a finished file its name, for good: the file is on the disk before the name is, and the name before we go on. */
async function settle(from: string, to: string): Promise<void> {
  await sync(from);
  await rename(from, to);
  await sync(dirname(to));
}

/**
 * Lets `write` make a file under another name and gives it its real name only when that has gone well, so that
 * a half-written file is never taken for a finished one, whenever this process or the machine ends.
 *
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

/** Gives a finished file a name that nothing may have; whether it has it now. */
async function settleFree(from: string, to: string): Promise<boolean> {
  await sync(from);
  try {
    await link(from, to);
  } catch (error) {
    const { code } = error as NodeJS.ErrnoException;
    if (code === "EEXIST") return false;
    // Not every file system has second names. There a name is taken by an empty file, which is replaced.
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
 * The same where nothing is replaced: the file gets the first of several names that nothing has when it is finished.
 *
 * @param folder in which it gets its name
 * @param names one after the other, without end
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
 * Lets `write` make a file, whole, under a name or, where that is taken and not to be replaced, under the same with a number.
 *
 * @returns the name that it has got, and what `write` returns
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
 * Lets `work` have a file of its own in a folder for as long as it takes; what it leaves there is removed.
 *
 * @param extension with its point; empty for none
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

/** Lets `work` have a folder of its own beside a file; it is removed with all that is in it. */
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

/** Gives a file that is never written to a second name, which takes no space; where that cannot be, a copy has it. */
export async function shareFile(from: string, to: string): Promise<void> {
  await mkdir(dirname(to), { recursive: true });
  await link(from, to).catch(() => copyWhole(from, to));
}

/** Moves a file, even to another file system, where a rename is not possible. */
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
