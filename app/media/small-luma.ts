/** A picture's luma as means of squares, for comparing pictures regardless of grain, sharpening and encoding noise. */
import type { Size } from "~/core/geometry/box";

/** Pixels along a square's sides. */
const SQUARE = 16;

export type SmallLuma = Uint8Array;

/** Squares across and down. */
export const smallSize = ({ width, height }: Size): Size => ({
  width: Math.max(1, Math.round(width / SQUARE)),
  height: Math.max(1, Math.round(height / SQUARE)),
});

/** @param data luma of a picture, in row-major order */
export function smallLuma(data: Uint8Array, { width, height }: Size): SmallLuma {
  const small = smallSize({ width, height });
  const sums = new Float64Array(small.width * small.height);
  const counts = new Uint32Array(sums.length);
  for (let y = 0; y < height; y++) {
    const row = Math.floor((y * small.height) / height) * small.width;
    for (let x = 0; x < width; x++) {
      const square = row + Math.floor((x * small.width) / width);
      sums[square]! += data[y * width + x]!;
      counts[square]!++;
    }
  }
  return Uint8Array.from(sums, (sum, i) => Math.round(sum / counts[i]!));
}

/** Mean difference of two pictures of one size, in levels of 255. */
export const differenceOf = (a: SmallLuma, b: SmallLuma): number =>
  a.reduce((sum, value, i) => sum + Math.abs(value - b[i]!), 0) / a.length;

export const meanOf = (picture: SmallLuma): number => picture.reduce((sum, value) => sum + value, 0) / picture.length;
