/** Movement of a mouth, relative to the upper half of the same face. */
import { clamped } from "../../numbers/clamped";
import type { Box, Point } from "../../geometry/box";
import type { YuvImage } from "../../image/yuv-image";

const COLUMNS = 12;
const ROWS = 8;
/** Noise of a picture, in luma, that must not count as movement in a flat patch. */
const NOISE = 5;
/** Narrowest face, in pixels, whose mouth can be seen. */
const LEAST_WIDTH = 18;

/** Two patches of a face, each with its mean removed and scaled by its contrast. */
export interface FacePatches {
  mouth: Float32Array;
  upper: Float32Array;
}

function patch(image: YuvImage, centre: Point, width: number, height: number): Float32Array | null {
  const { luma } = image;
  const out = new Float32Array(COLUMNS * ROWS);
  let sum = 0;
  for (let j = 0, k = 0; j < ROWS; j++) {
    const y = centre.y + ((j + 0.5) / ROWS - 0.5) * height - 0.5;
    const y0 = Math.floor(y);
    if (y0 < 0 || y0 + 1 >= image.height) return null;
    for (let i = 0; i < COLUMNS; i++, k++) {
      const x = centre.x + ((i + 0.5) / COLUMNS - 0.5) * width - 0.5;
      const x0 = Math.floor(x);
      if (x0 < 0 || x0 + 1 >= image.width) return null;
      const at = y0 * image.width + x0;
      const top = luma[at]! + (luma[at + 1]! - luma[at]!) * (x - x0);
      const bottom = luma[at + image.width]! + (luma[at + image.width + 1]! - luma[at + image.width]!) * (x - x0);
      out[k] = top + (bottom - top) * (y - y0);
      sum += out[k]!;
    }
  }
  const mean = sum / out.length;
  let squares = 0;
  for (const value of out) squares += (value - mean) ** 2;
  const deviation = Math.sqrt(squares / out.length) + NOISE;
  for (let k = 0; k < out.length; k++) out[k] = (out[k]! - mean) / deviation;
  return out;
}

/** The patches of a face with its mouth at a place; null where it is too small or leaves the picture. */
export function facePatches(image: YuvImage, box: Box, mouth: Point): FacePatches | null {
  if (box.width < LEAST_WIDTH) return null;
  const width = 0.46 * box.width;
  const height = 0.3 * box.height;
  const lower = patch(image, { x: mouth.x, y: mouth.y + 0.05 * box.height }, width, height);
  const eyes = { x: mouth.x, y: mouth.y - 0.42 * box.height };
  const upper = patch(image, eyes, width, height);
  return lower && upper ? { mouth: lower, upper } : null;
}

const difference = (a: Float32Array, b: Float32Array): number =>
  a.reduce((sum, value, i) => sum + Math.abs(value - b[i]!), 0) / a.length;

/** How much more the mouth changed than the rest of the face, 0 to 1. */
export function mouthMovement(before: FacePatches, after: FacePatches): number {
  const moved = difference(before.mouth, after.mouth) - difference(before.upper, after.upper);
  return clamped(moved, 0, 1);
}
