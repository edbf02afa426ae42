/** Pictures and fonts of the editor's own, as the command line is given them. */
import { readFile } from "node:fs/promises";
import { basename, resolve } from "node:path";
import type { Backdrop } from "~/core/composition/backdrop";
import type { Picture } from "~/core/composition/picture";
import type { ReadLayers } from "~/core/formats/layers";
import type { OwnFont } from "~/core/composition/layers/own-font";
import { OwnFileError } from "~/media/own/own-file";
import { readFont } from "~/media/own/read-font.server";
import { readPicture } from "~/media/own/read-picture.server";
import { UsageError } from "./options";

/** A picture file that lies behind the film. */
export interface BackdropFile {
  kind: "file";
  file: string;
}

export class OwnFiles {
  /** What each is made of, by its id. */
  readonly pictures = new Map<string, Buffer>();
  readonly fonts = new Map<string, Buffer>();

  /** @throws UsageError if the file is not there, or none that can be used */
  private async read<T>(file: string, as: (bytes: Buffer) => T | Promise<T>): Promise<T> {
    try {
      return await as(await readFile(file));
    } catch (error) {
      throw new UsageError(error instanceof OwnFileError ? error.message : `${file}: this file cannot be read`);
    }
  }

  private async picture(file: string): Promise<Picture> {
    const name = basename(file);
    const { id, bytes, size } = await this.read(file, (data) => readPicture(data, name));
    this.pictures.set(id, bytes);
    return { id, name, ...size };
  }

  private async font(file: string): Promise<OwnFont> {
    const name = basename(file);
    const { id, bytes } = await this.read(file, (data) => readFont(data, name));
    this.fonts.set(id, bytes);
    return { id, name };
  }

  async backdrop(said: Backdrop | BackdropFile): Promise<Backdrop> {
    if (said.kind !== "file") return said;
    return { kind: "picture", picture: await this.picture(said.file), fit: "fill", colour: "#000000" };
  }

  /** Layers of a file, whose pictures and fonts lie beside it. */
  async layers({ from, files, layersWith, safeArea }: ReadLayers & { from: string }) {
    const pictures = new Map<string, Picture>();
    const fonts = new Map<string, OwnFont>();
    for (const file of files.pictures) pictures.set(file, await this.picture(resolve(from, "..", file)));
    for (const file of files.fonts) fonts.set(file, await this.font(resolve(from, "..", file)));
    return { layers: layersWith({ pictures, fonts }), safeArea };
  }
}
