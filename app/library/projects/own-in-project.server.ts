/** The editor's own files saved with a project: pictures, films and fonts. */
import { basename, extname } from "node:path";
import { MOST_MOVING_BYTES, MOST_PICTURE_BYTES } from "~/core/composition/picture";
import type { Project } from "~/core/formats/project";
import type { OpenZip, ZipPart } from "~/disk/zip.server";
import { withScratchFile } from "~/disk/write-aside.server";
import { keepFont, keepPicture, libraryFiles } from "../own/own-files.server";
import { keepMoving, movingFolder } from "../own/own-moving.server";

/** Folder of each kind in the archive. */
const FOLDERS = { pictures: "pictures/", moving: "moving/", fonts: "fonts/" } as const;

/** The editor's own files shown by a film's versions, as they are written with its work. */
export function ownParts({ versions }: Pick<Project, "versions">): ZipPart[] {
  const files = versions.map((version) =>
    libraryFiles({ ...version, shots: new Map(version.shots.map(({ shotId, says }) => [shotId, says])) }),
  );
  const parts = (kind: keyof typeof FOLDERS): ZipPart[] =>
    [...new Set(files.flatMap((each) => [...each[kind].values()]))].map((file) => ({
      name: `${FOLDERS[kind]}${basename(file)}`,
      file,
    }));
  return [...parts("pictures"), ...parts("moving"), ...parts("fonts")];
}

/** Stores files that came with saved work; unusable ones are left out, and their layers stay empty. */
export async function takeOwn(zip: OpenZip): Promise<void> {
  const take = async (folder: string, keep: (entry: string) => Promise<unknown>) => {
    for (const entry of zip.names.filter((name) => name.startsWith(folder))) await keep(entry).catch(() => null);
  };
  const bytesOf = async (entry: string, keep: (bytes: Buffer, name: string) => Promise<unknown>) => {
    const bytes = await zip.readBytes(entry, MOST_PICTURE_BYTES);
    return bytes && keep(bytes, basename(entry));
  };
  await take(FOLDERS.pictures, (entry) => bytesOf(entry, keepPicture));
  await take(FOLDERS.moving, (entry) =>
    withScratchFile(movingFolder(), extname(entry), async (scratch) => {
      if (zip.bytesOf(entry) > MOST_MOVING_BYTES) return;
      await zip.extract(entry, scratch);
      await keepMoving(scratch, basename(entry));
    }),
  );
  await take(FOLDERS.fonts, (entry) => bytesOf(entry, keepFont));
}
