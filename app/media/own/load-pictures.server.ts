import { Image } from "@napi-rs/canvas";
import type { Size } from "~/core/geometry/box";
import { bytesOf, type OwnData } from "./own-file";
import { type MovingFile, openMoving } from "./moving/moving-file.server";
import { OwnPictures } from "./own-pictures.server";

/** The editor's own files shown by a version, by id. */
export interface OwnContents {
  pictures: OwnData;
  /** Files of moving pictures. */
  moving: ReadonlyMap<string, string>;
  fonts: OwnData;
}
export const NOTHING_OWN: OwnContents = { pictures: new Map(), moving: new Map(), fonts: new Map() };

/** Prepares pictures for frames of some size. */
export async function loadPictures({ pictures, moving }: OwnContents, frame: Size): Promise<OwnPictures> {
  const stills = new Map<string, Image>();
  for (const [id, one] of pictures) {
    const image = new Image();
    image.src = bytesOf(one);
    await image.decode();
    stills.set(id, image);
  }
  const opened = new Map<string, MovingFile>();
  for (const [id, file] of moving) opened.set(id, await openMoving(file, id));
  return new OwnPictures(frame, stills, opened);
}
