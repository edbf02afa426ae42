import type { Box, Size } from "../geometry/box";

/** Interleaved 8-bit RGB, rows from the top, without padding. */
export interface RgbImage extends Size {
  data: Uint8Array;
}

/** How an image was fitted into a square: image = (square − offset) / scale + region's corner. */
export interface Fit {
  scale: number;
  offsetX: number;
  offsetY: number;
  region: Box;
}

/**
 * Samples a region into a square of `size` pixels with its proportions kept and black beside it, as the
 * detectors expect. Bilinear, with as many sub-samples as the reduction needs.
 *
 * `write(index, r, g, b)` receives each pixel of the square in rows, values 0 to 255.
 */
export function fitIntoSquare(
  image: RgbImage,
  region: Box,
  size: number,
  write: (index: number, r: number, g: number, b: number) => void,
): Fit {
  const scale = Math.min(size / region.width, size / region.height);
  const fitted = { width: Math.round(region.width * scale), height: Math.round(region.height * scale) };
  const offsetX = (size - fitted.width) >> 1;
  const offsetY = (size - fitted.height) >> 1;
  const samples = Math.max(1, Math.min(3, Math.round(1 / scale)));
  const step = 1 / (scale * samples);
  const { data, width, height } = image;
  for (let y = 0; y < size; y++) {
    for (let x = 0; x < size; x++) {
      const index = y * size + x;
      if (x < offsetX || y < offsetY || x >= offsetX + fitted.width || y >= offsetY + fitted.height) {
        write(index, 0, 0, 0);
        continue;
      }
      let r = 0;
      let g = 0;
      let b = 0;
      for (let j = 0; j < samples; j++) {
        const sy = region.y + (y - offsetY) / scale + (j + 0.5) * step - 0.5;
        const cy = sy < 0 ? 0 : sy > height - 1 ? height - 1 : sy;
        const y0 = Math.floor(cy);
        const fy = cy - y0;
        const below = y0 + 1 < height ? width * 3 : 0;
        for (let i = 0; i < samples; i++) {
          const sx = region.x + (x - offsetX) / scale + (i + 0.5) * step - 0.5;
          const cx = sx < 0 ? 0 : sx > width - 1 ? width - 1 : sx;
          const x0 = Math.floor(cx);
          const fx = cx - x0;
          const right = x0 + 1 < width ? 3 : 0;
          const at = (y0 * width + x0) * 3;
          const w00 = (1 - fx) * (1 - fy);
          const w01 = fx * (1 - fy);
          const w10 = (1 - fx) * fy;
          const w11 = fx * fy;
          const lower = at + below;
          r += data[at]! * w00 + data[at + right]! * w01 + data[lower]! * w10 + data[lower + right]! * w11;
          g +=
            data[at + 1]! * w00 + data[at + right + 1]! * w01 + data[lower + 1]! * w10 + data[lower + right + 1]! * w11;
          b +=
            data[at + 2]! * w00 + data[at + right + 2]! * w01 + data[lower + 2]! * w10 + data[lower + right + 2]! * w11;
        }
      }
      const count = samples * samples;
      write(index, r / count, g / count, b / count);
    }
  }
  return { scale, offsetX, offsetY, region };
}

/** Takes a box in the square back into the image. */
export const unfitBox = (box: Box, fit: Fit): Box => ({
  x: (box.x - fit.offsetX) / fit.scale + fit.region.x,
  y: (box.y - fit.offsetY) / fit.scale + fit.region.y,
  width: box.width / fit.scale,
  height: box.height / fit.scale,
});

/** Mean of each block of pixels; `out` has `columns` × `rows` × 3 values, 0 to 255. */
export function shrink(image: RgbImage, columns: number, rows: number): Uint8Array {
  const { data, width, height } = image;
  const sums = new Uint32Array(columns * 3);
  const out = new Uint8Array(columns * rows * 3);
  // Offset of each pixel's column in a row of sums, and how many pixels go into each.
  const columnOf = Int32Array.from({ length: width }, (_, x) => 3 * Math.floor((x * columns) / width));
  const counts = new Uint32Array(columns * 3);
  for (const offset of columnOf) counts[offset]! += 1;
  for (let row = 0; row < rows; row++) {
    const y0 = Math.floor((row * height) / rows);
    const y1 = Math.max(y0 + 1, Math.floor(((row + 1) * height) / rows));
    sums.fill(0);
    for (let y = y0, at = y0 * width * 3; y < y1; y++) {
      for (let x = 0; x < width; x++, at += 3) {
        const offset = columnOf[x]!;
        sums[offset]! += data[at]!;
        sums[offset + 1]! += data[at + 1]!;
        sums[offset + 2]! += data[at + 2]!;
      }
    }
    for (let column = 0; column < columns; column++) {
      // A picture smaller than the grid repeats its pixels.
      const offset = counts[column * 3]! > 0 ? column * 3 : columnOf[Math.floor((column * width) / columns)]!;
      const count = counts[offset]! * (y1 - y0);
      for (let c = 0; c < 3; c++) out[(row * columns + column) * 3 + c] = sums[offset + c]! / count;
    }
  }
  return out;
}

/** Rec.709 luma of an interleaved RGB buffer, 0 to 255. */
export function lumaOf(rgb: Uint8Array): Float32Array {
  const luma = new Float32Array(rgb.length / 3);
  for (let i = 0, at = 0; i < luma.length; i++, at += 3) {
    luma[i] = 0.2126 * rgb[at]! + 0.7152 * rgb[at + 1]! + 0.0722 * rgb[at + 2]!;
  }
  return luma;
}
