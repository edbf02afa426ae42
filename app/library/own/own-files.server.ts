/** The editor's own pictures and fonts, stored in the library by content. */
import { existsSync } from "node:fs";
import { mkdir, writeFile } from "node:fs/promises";
import { join } from "node:path";
import { FONT_KINDS, type OwnFont } from "~/core/composition/layers/own-font";
import { type Picture, PICTURE_KINDS } from "~/core/composition/picture";
import { type Brought, fontsIn, picturesIn } from "~/core/edits/brought-in";
import { ContentId } from "~/core/basics/ids";
import { writeAside } from "~/disk/write-aside.server";
import { apart } from "~/media/apart/apart.server";
import { isAnimatedWebp } from "~/media/own/moving/animation.server";
import { readFont } from "~/media/own/read-font.server";
import { findMoving, type KeptFile, keepAnimation } from "./own-moving.server";
import { filmNameOf } from "../uploads/uploads.server";
import { dataFolder } from "~/db/workplace.server";

/** Files of a kind, in a folder of the library. */
class OwnFiles {
  /** @param types media types by file extension */
  constructor(
    private readonly folder: string,
    private readonly types: Readonly<Record<string, string>>,
  ) {}

  private path(id: string, extension: string): string {
    return join(dataFolder(), this.folder, `${id}.${extension}`);
  }

  /** Null if there is none with this id. */
  find(id: string): KeptFile | null {
    if (!ContentId.safeParse(id).success) return null;
    const all = Object.entries(this.types).map(([extension, type]) => ({ type, file: this.path(id, extension) }));
    return all.find(({ file }) => existsSync(file)) ?? null;
  }

  async keep({ id, kind, bytes }: { id: string; kind: string; bytes: Uint8Array }): Promise<void> {
    if (this.find(id)) return;
    await mkdir(join(dataFolder(), this.folder), { recursive: true });
    await writeAside(this.path(id, kind), (aside) => writeFile(aside, bytes));
  }
}

const pictures = new OwnFiles("pictures", PICTURE_KINDS);
const fonts = new OwnFiles("fonts", FONT_KINDS);

export const findPicture = (id: string): KeptFile | null => pictures.find(id);
export const findFont = (id: string): KeptFile | null => fonts.find(id);

/**
 * Stores a picture.
 * @throws OwnFileError if it cannot be used
 */
export async function keepPicture(bytes: Buffer, fileName: string): Promise<Picture> {
  const name = filmNameOf(fileName);
  if (isAnimatedWebp(bytes)) return keepAnimation(bytes, name);
  const read = await apart("picture", name, bytes, name);
  await pictures.keep(read);
  return { id: read.id, name, ...read.size };
}

/**
 * Stores a font.
 * @throws OwnFileError if it cannot be used
 */
export async function keepFont(bytes: Buffer, fileName: string): Promise<OwnFont> {
  const name = filmNameOf(fileName);
  const read = readFont(bytes, name);
  await fonts.keep(read);
  return { id: read.id, name };
}

/** Paths of files in the library, by id; missing ones are omitted. */
function filesOf(all: readonly { id: string }[], stored: Pick<OwnFiles, "find">): Map<string, string> {
  return new Map(
    all.flatMap(({ id }) => {
      const kept = stored.find(id);
      return kept ? [[id, kept.file] as const] : [];
    }),
  );
}

/** Paths of the pictures, still and moving, and fonts that a version shows, by id. */
export const libraryFiles = (
  version: Brought,
): { pictures: Map<string, string>; moving: Map<string, string>; fonts: Map<string, string> } => ({
  pictures: filesOf(picturesIn(version), pictures),
  moving: filesOf(picturesIn(version), { find: findMoving }),
  fonts: filesOf(fontsIn(version), fonts),
});
