/** Converts a picture's colours for networks. */
import type { Box } from "../geometry/box";
import { KernelMemory, loops } from "../kernel/kernel";
import type { YuvImage } from "./yuv-image";

/** Maps a colour value from 0 to 255. */
export interface Range {
  scale: number;
  offset: number;
}

/** The fields of the kernel's `Colours`. */
const FIELDS = 12;

/**
 * Writes the Rec.709 colours of a part of a picture.
 * @param part its corner in the picture, at even pixels; black where it reaches beyond the picture
 * @param plane values of a plane, or 0 for none, as in the kernel's `writeColours`
 */
function write(image: YuvImage, part: Box, range: Range, out: Float32Array, plane: number): void {
  const memory = new KernelMemory();
  const planes = [image.luma, image.blue, image.red].map((samples) => memory.put(samples));
  const to = memory.take(4 * out.length);
  const job = memory.take(4 * FIELDS);
  const width = Math.min(part.width, image.width - part.x);
  const height = Math.min(part.height, image.height - part.y);
  memory.ints(job, FIELDS).set([...planes, image.width, part.x, part.y, width, height, to, part.width]);
  memory.floats(job, FIELDS).set([range.scale, range.offset], FIELDS - 2);
  if (width < part.width || height < part.height) memory.floats(to, out.length).fill(range.offset);
  loops().writeColours(job, plane);
  out.set(memory.floats(to, out.length));
}

/** Red, green and blue of each pixel, interleaved. */
export const writeInterleaved = (image: YuvImage, part: Box, range: Range, out: Float32Array): void =>
  write(image, part, range, out, 0);

/** Planes of blue, green and red, each of the size of the part. */
export const writePlanes = (image: YuvImage, part: Box, range: Range, out: Float32Array): void =>
  write(image, part, range, out, part.width * part.height);
