/** The editor's own pictures and fonts, as given to the command line. */
import { readFile } from "node:fs/promises";
import { basename, resolve } from "node:path";
import type { Backdrop } from "~/core/composition/backdrop";
import { type Picture, USUAL_PLAYBACK } from "~/core/composition/picture";
import type { ReadLayers } from "~/core/formats/layers";
import type { OwnFont } from "~/core/composition/layers/own-font";
import { openMoving, pictureOf } from "~/media/own/moving/moving-file.server";
import { contentId, OwnFileError } from "~/media/own/own-file";
import { readFont } from "~/media/own/read-font.server";
import { readPicture } from "~/media/own/read-picture.server";
import { UsageError } from "./options";

/** A picture file for the backdrop. */
export interface BackdropFile {
  kind: "file";
  file: string;
}

/** Whether a file is read as a film, by its name. */
export const isFilmFile = (file: string): boolean => /\.(mp4|mov|m4v|mkv|webm|gif|avi|mxf)$/i.test(file);

export class OwnFiles {
  /** Content of each file, by its id. */
  readonly pictures = new Map<string, Buffer>();
  readonly moving = new Map<string, string>();
  readonly fonts = new Map<string, Buffer>();

  /** @throws UsageError if the file does not exist, or cannot be used */
  private async read<T>(file: string, as: (bytes: Buffer) => T | Promise<T>): Promise<T> {
    try {
      return await as(await readFile(file));
    } catch (error) {
      throw new UsageError(error instanceof OwnFileError ? error.message : `${file}: this file cannot be read`);
    }
  }

  private async picture(file: string): Promise<Picture> {
    const name = basename(file);
    if (isFilmFile(file)) return this.film(file, name);
    const { id, bytes, size } = await this.read(file, (data) => readPicture(data, name));
    this.pictures.set(id, bytes);
    return { id, name, ...size };
  }

  /** A film, which stays where it is. */
  private async film(file: string, name: string): Promise<Picture> {
    try {
      const picture = pictureOf(await openMoving(file, name), contentId(Buffer.from(resolve(file))));
      this.moving.set(picture.id, file);
      return picture;
    } catch (error) {
      if (error instanceof OwnFileError) throw new UsageError(error.message);
      throw error;
    }
  }

  private async font(file: string): Promise<OwnFont> {
    const name = basename(file);
    const { id, bytes } = await this.read(file, (data) => readFont(data, name));
    this.fonts.set(id, bytes);
    return { id, name };
  }

  async backdrop(said: Backdrop | BackdropFile): Promise<Backdrop> {
    if (said.kind !== "file") return said;
    const picture = await this.picture(said.file);
    return { kind: "picture", picture, fit: "fill", colour: "#000000", playback: USUAL_PLAYBACK };
  }

  /** Layers of a file, with the pictures and fonts beside it. */
  async layers({ from, files, layersWith, safeArea }: ReadLayers & { from: string }) {
    const pictures = new Map<string, Picture>();
    const fonts = new Map<string, OwnFont>();
    for (const file of files.pictures) pictures.set(file, await this.picture(resolve(from, "..", file)));
    for (const file of files.fonts) fonts.set(file, await this.font(resolve(from, "..", file)));
    return { layers: layersWith({ pictures, fonts }), safeArea };
  }
}
