import { createCanvas, Image } from "@napi-rs/canvas";
import type { Box, Size } from "~/core/geometry/box";
import { bytesOf, type OwnData } from "./own-file";
import { evenBox, type OverlayPlane, overlayOf } from "../layers/overlay";

/** Decoded pictures, by id. */
export type LoadedPictures = ReadonlyMap<string, Image>;

/** Decodes pictures. */
export async function loadPictures(data: OwnData): Promise<LoadedPictures> {
  const loaded = new Map<string, Image>();
  for (const [id, one] of data) {
    const image = new Image();
    image.src = bytesOf(one);
    await image.decode();
    loaded.set(id, image);
  }
  return loaded;
}

/** A picture as planes that are laid over a frame. */
export function pictureOverlay(image: Image, { x, y, width, height }: Box, frame: Size): OverlayPlane[] {
  const box = evenBox({ x, y, width, height }, frame);
  const canvas = createCanvas(box.width, box.height);
  const context = canvas.getContext("2d");
  context.imageSmoothingQuality = "high";
  context.drawImage(image, x - box.x, y - box.y, width, height);
  return overlayOf(canvas.data(), box);
}
