/** Pictures of the editor's own, as the command line is given them. */
import { readFile } from "node:fs/promises";
import { basename, resolve } from "node:path";
import type { Backdrop } from "~/core/composition/backdrop";
import type { Picture } from "~/core/composition/picture";
import type { ReadLayers } from "~/core/formats/layers";
import { PictureError, readPicture } from "~/media/pictures/read-picture.server";
import { UsageError } from "./options";

/** A picture file that lies behind the film. */
export interface BackdropFile {
  kind: "file";
  file: string;
}

export class OwnPictures {
  /** What each is made of, by its id. */
  readonly data = new Map<string, Buffer>();

  /** @throws UsageError if the file is not there, or no picture */
  async take(file: string): Promise<Picture> {
    try {
      const { id, bytes, size } = await readPicture(await readFile(file), basename(file));
      this.data.set(id, bytes);
      return { id, name: basename(file), ...size };
    } catch (error) {
      throw new UsageError(error instanceof PictureError ? error.message : `${file}: this file cannot be read`);
    }
  }

  async backdrop(said: Backdrop | BackdropFile): Promise<Backdrop> {
    if (said.kind !== "file") return said;
    return { kind: "picture", picture: await this.take(said.file), fit: "fill", colour: "#000000" };
  }

  /** Layers of a file, whose pictures lie beside it. */
  async layers({ from, files, layersWith, safeArea }: ReadLayers & { from: string }) {
    const pictures = new Map<string, Picture>();
    for (const file of files) pictures.set(file, await this.take(resolve(from, "..", file)));
    return { layers: layersWith(pictures), safeArea };
  }
}
