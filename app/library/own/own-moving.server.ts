/** The editor's own moving pictures: stored in the library as they came, with a proxy for the desk. */
import { createHash } from "node:crypto";
import { createReadStream, existsSync, readdirSync } from "node:fs";
import { join } from "node:path";
import { pipeline } from "node:stream/promises";
import type { Picture } from "~/core/composition/picture";
import { ContentId } from "~/core/basics/ids";
import type { Rate } from "~/core/time/rate";
import { type FilmRow, listFilms } from "~/db/films.server";
import { copyWhole, moveWhole, shareFile, withScratchFile, writeAside } from "~/disk/write-aside.server";
import { requireSpace } from "~/disk/disk-space.server";
import { isClipList } from "~/media/clip-list.server";
import { extensionOf } from "~/media/containers";
import { animationToFilm, inSequence, sequenceToFilm } from "~/media/own/moving/animation.server";
import { lightType, makeLight, makePoster } from "~/media/own/moving/light-moving.server";
import { openMoving, pictureOf } from "~/media/own/moving/moving-file.server";
import { OwnFileError } from "~/media/own/own-file";
import { filmNameOf } from "../uploads/uploads.server";
import { DATA_FOLDER, dataFolder, db, isOwnCopy, isMissing, sourceFile } from "~/db/workplace.server";
import { ownFileErrors } from "~/texts/own-file-errors";

/** A file in the library. */
export interface KeptFile {
  file: string;
  /** Media type of its content. */
  type: string;
}

/** Their folder. */
export const movingFolder = (): string => join(dataFolder(), "moving");
const lightFolder = (): string => join(movingFolder(), "light");
const posterOf = (id: string): string => join(lightFolder(), `${id}.png`);

/** The file of a moving picture, with any extension; null if there is none with this id. */
function fileIn(where: string, id: string, isIt = (name: string) => name.startsWith(`${id}.`)): string | null {
  if (!ContentId.safeParse(id).success || !existsSync(where)) return null;
  const name = readdirSync(where).find(isIt);
  return name ? join(where, name) : null;
}

export function findMoving(id: string): KeptFile | null {
  const file = fileIn(movingFolder(), id);
  return file === null ? null : { file, type: "application/octet-stream" };
}

/** The id of a file, a hash of its content. */
async function contentIdOf(file: string): Promise<string> {
  const hash = createHash("sha256");
  await pipeline(createReadStream(file), hash);
  return hash.digest("hex").slice(0, 32);
}

/**
 * Stores a moving picture.
 * @param take moves or copies the file into the library
 * @throws OwnFileError if it cannot be used
 */
export async function keepMoving(
  file: string,
  fileName: string,
  take: (from: string, to: string) => Promise<void> = moveWhole,
): Promise<Picture> {
  const name = filmNameOf(fileName);
  const moving = await openMoving(file, name);
  const id = await contentIdOf(file);
  const picture = pictureOf(moving, id);
  const kept = join(movingFolder(), `${id}${extensionOf(moving.info)}`);
  if (!findMoving(id)) await take(file, kept);
  if (!existsSync(posterOf(id)))
    await writeAside(posterOf(id), (aside) => makePoster({ ...moving, file: kept }, aside));
  return picture;
}

/** Films of the library that can become moving pictures, by name. */
export const filmsToPlace = (): { id: string; name: string }[] =>
  listFilms(db())
    .filter((film) => film.deletedAt === null && !isMissing(film) && !isClipList(sourceFile(film)))
    .map(({ id, name }) => ({ id, name }))
    .sort((a, b) => a.name.localeCompare(b.name));

/** Stores a film of the library as a moving picture; it stays when the film is deleted. */
export async function keepFilm(film: FilmRow): Promise<Picture> {
  const file = sourceFile(film);
  if (isClipList(file)) {
    throw new OwnFileError(`${film.name}: ${ownFileErrors.film.madeOfClips}`);
  }
  if (isOwnCopy(film.file)) return keepMoving(file, film.name, shareFile);
  // A file elsewhere may be written to, and is copied.
  requireSpace(dataFolder(), DATA_FOLDER, film.info.bytes, film.name);
  return keepMoving(file, film.name, copyWhole);
}

/** Stores an animated picture. */
export const keepAnimation = (bytes: Buffer, name: string): Promise<Picture> =>
  withScratchFile(movingFolder(), ".mov", async (scratch) => {
    await animationToFilm(bytes, name, scratch);
    return keepMoving(scratch, name);
  });

/**
 * Stores numbered pictures as one that moves.
 * @param rate of the film that it is for
 */
export function keepSequence(files: readonly { name: string; bytes: Buffer }[], rate: Rate): Promise<Picture> {
  const row = inSequence(files);
  return withScratchFile(movingFolder(), ".mov", async (scratch) => {
    await sequenceToFilm(row, rate, scratch);
    return keepMoving(scratch, row[0]!.name);
  });
}

const inTheMaking = new Map<string, Promise<KeptFile>>();

async function make(id: string, file: string): Promise<KeptFile> {
  const moving = await openMoving(file, id);
  const { extension, type } = lightType(moving);
  const light = join(lightFolder(), `${id}${extension}`);
  await writeAside(light, (aside) => makeLight(moving, aside));
  return { file: light, type };
}

/** The proxy of a moving picture, made at first use; null if there is no such picture. */
export async function lightCopyOf(id: string): Promise<KeptFile | null> {
  const light = fileIn(lightFolder(), id, (name) => name.startsWith(`${id}.`) && !name.endsWith(".png"));
  if (light) return { file: light, type: light.endsWith(".webm") ? "video/webm" : "video/mp4" };
  const kept = findMoving(id);
  if (!kept) return null;
  const known = inTheMaking.get(id);
  if (known) return known;
  const made = make(id, kept.file).finally(() => inTheMaking.delete(id));
  inTheMaking.set(id, made);
  return made;
}

/** A still of its first frame; null if there is no such picture. */
export function findPoster(id: string): KeptFile | null {
  if (!ContentId.safeParse(id).success || !existsSync(posterOf(id))) return null;
  return { file: posterOf(id), type: "image/png" };
}
