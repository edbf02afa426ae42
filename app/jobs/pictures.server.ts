/** Pictures of the editor's own: kept in the library, by what is in them. */
import { existsSync } from "node:fs";
import { mkdir, writeFile } from "node:fs/promises";
import { join } from "node:path";
import { type Picture, PICTURE_KINDS, PictureId, type PictureKind } from "~/core/composition/picture";
import { picturesIn } from "~/core/edits/pictures-in";
import { writeAside } from "~/disk/write-aside.server";
import { readPicture } from "~/media/pictures/read-picture.server";
import { filmNameOf } from "./uploads.server";
import { dataFolder } from "./workplace.server";

const picturesFolder = (): string => join(dataFolder(), "pictures");
const KINDS = Object.keys(PICTURE_KINDS) as PictureKind[];

export interface KeptPicture {
  file: string;
  kind: PictureKind;
}

/** Where a picture is; null if there is none with this id. */
export function findPicture(id: string): KeptPicture | null {
  if (!PictureId.safeParse(id).success) return null;
  const kept = KINDS.map((kind) => ({ kind, file: join(picturesFolder(), `${id}.${kind}`) }));
  return kept.find(({ file }) => existsSync(file)) ?? null;
}

/**
 * Keeps a picture.
 *
 * @throws PictureError if it is none that can be used
 */
export async function keepPicture(bytes: Buffer, fileName: string): Promise<Picture> {
  const name = filmNameOf(fileName);
  const picture = await readPicture(bytes, name);
  const { id } = picture;
  if (!findPicture(id)) {
    await mkdir(picturesFolder(), { recursive: true });
    await writeAside(join(picturesFolder(), `${id}.${picture.kind}`), (aside) => writeFile(aside, picture.bytes));
  }
  return { id, name, ...picture.size };
}

/** Where the pictures of the library are that a version shows, by id. */
export function libraryPictures(version: Parameters<typeof picturesIn>[0]): Map<string, string> {
  const files = picturesIn(version).map(({ id }) => [id, findPicture(id)?.file] as const);
  return new Map(files.flatMap(([id, file]) => (file ? [[id, file] as const] : [])));
}
