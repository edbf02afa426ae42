/** A picture's colours as networks take them. */
import type { Box } from "../geometry/box";
import { KernelMemory, loops } from "../kernel/kernel";
import type { YuvImage } from "./yuv-image";

/** What becomes of a colour's value from 0 to 255. */
export interface Range {
  scale: number;
  offset: number;
}

/** The fields of the kernel's `Colours`. */
const FIELDS = 12;

/**
 * Lets a loop of the kernel write Rec.709's colours of what a part of a picture shows of it.
 *
 * @param part its corner in the picture, at even pixels; where it reaches beyond the picture, that is black
 */
function write(image: YuvImage, part: Box, range: Range, out: Float32Array, loop: (job: number) => void): void {
  const memory = new KernelMemory();
  const planes = [image.luma, image.blue, image.red].map((plane) => memory.put(plane));
  const to = memory.take(4 * out.length);
  const job = memory.take(4 * FIELDS);
  const width = Math.min(part.width, image.width - part.x);
  const height = Math.min(part.height, image.height - part.y);
  memory.ints(job, FIELDS).set([...planes, image.width, part.x, part.y, width, height, to, part.width]);
  memory.floats(job, FIELDS).set([range.scale, range.offset], FIELDS - 2);
  if (width < part.width || height < part.height) memory.floats(to, out.length).fill(range.offset);
  loop(job);
  out.set(memory.floats(to, out.length));
}

/** Writes red, green and blue of each pixel, interleaved; three values for each pixel of the part. */
export const writeInterleaved = (image: YuvImage, part: Box, range: Range, out: Float32Array): void =>
  write(image, part, range, out, (job) => loops().interleavedColours(job));

/** Writes planes of blue, green and red; each of the size of the part. */
export const writePlanes = (image: YuvImage, part: Box, range: Range, out: Float32Array): void =>
  write(image, part, range, out, (job) => loops().planesOfColours(job, part.width * part.height));
