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

/** Source samples and their weights for each sample of a reduced line: a triangle as wide as the reduction. */
interface LineWeights {
  first: Int32Array;
  weights: Float32Array;
  taps: number;
}

function lineWeights(start: number, step: number, count: number, sourceLength: number): LineWeights {
  const reach = Math.max(1, step);
  const taps = Math.ceil(2 * reach) + 1;
  const first = new Int32Array(count);
  const weights = new Float32Array(count * taps);
  for (let i = 0; i < count; i++) {
    const centre = start + (i + 0.5) * step - 0.5;
    first[i] = Math.max(0, Math.min(sourceLength - taps, Math.ceil(centre - reach)));
    let sum = 0;
    for (let k = 0; k < taps; k++) {
      const weight = Math.max(0, 1 - Math.abs(first[i]! + k - centre) / reach);
      weights[i * taps + k] = weight;
      sum += weight;
    }
    for (let k = 0; k < taps; k++) weights[i * taps + k]! /= sum;
  }
  return { first, weights, taps };
}

/**
 * Reduces or enlarges a region into a square of `size` pixels with its proportions kept and black beside it, as
 * the detectors expect. `out` receives interleaved RGB, 0 to 255. The region is at least a few pixels large.
 */
export function fitIntoSquare(image: RgbImage, region: Box, size: number, out: Float32Array): Fit {
  const { data, width, height } = image;
  const scale = Math.min(size / region.width, size / region.height);
  const columns = Math.round(region.width * scale);
  const rows = Math.round(region.height * scale);
  const offsetX = (size - columns) >> 1;
  const offsetY = (size - rows) >> 1;
  const across = lineWeights(region.x, 1 / scale, columns, width);
  const down = lineWeights(region.y, 1 / scale, rows, height);
  const firstRow = down.first[0]!;
  const lastRow = down.first[rows - 1]! + down.taps;
  const lines = new Float32Array((lastRow - firstRow) * columns * 3);
  for (let y = firstRow, to = 0; y < lastRow; y++) {
    for (let x = 0; x < columns; x++, to += 3) {
      let r = 0;
      let g = 0;
      let b = 0;
      let at = (y * width + across.first[x]!) * 3;
      for (let k = x * across.taps; k < (x + 1) * across.taps; k++, at += 3) {
        const weight = across.weights[k]!;
        r += weight * data[at]!;
        g += weight * data[at + 1]!;
        b += weight * data[at + 2]!;
      }
      lines[to] = r;
      lines[to + 1] = g;
      lines[to + 2] = b;
    }
  }
  out.fill(0);
  const line = columns * 3;
  for (let y = 0; y < rows; y++) {
    const to = ((y + offsetY) * size + offsetX) * 3;
    for (let tap = 0; tap < down.taps; tap++) {
      const weight = down.weights[y * down.taps + tap]!;
      if (weight === 0) continue;
      const from = (down.first[y]! - firstRow + tap) * line;
      for (let i = 0; i < line; i++) out[to + i]! += weight * lines[from + i]!;
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

/** First source pixel of each of `count` equal parts of a line, each part at least one pixel long. */
function partStarts(length: number, count: number): Int32Array {
  return Int32Array.from({ length: count + 1 }, (_, i) => Math.min(length, Math.floor((i * length) / count)));
}

/** Mean of each block of pixels; `out` has `columns` × `rows` × 3 values, 0 to 255. */
export function shrink(image: RgbImage, columns: number, rows: number): Uint8Array {
  const { data, width, height } = image;
  const out = new Uint8Array(columns * rows * 3);
  const across = partStarts(width, columns);
  const down = partStarts(height, rows);
  for (let row = 0, to = 0; row < rows; row++) {
    const top = Math.min(height - 1, down[row]!);
    const bottom = Math.max(top + 1, down[row + 1]!);
    for (let column = 0; column < columns; column++, to += 3) {
      // A picture smaller than the grid repeats its pixels.
      const left = Math.min(width - 1, across[column]!);
      const right = Math.max(left + 1, across[column + 1]!);
      let r = 0;
      let g = 0;
      let b = 0;
      for (let y = top; y < bottom; y++) {
        const end = 3 * (y * width + right);
        for (let at = 3 * (y * width + left); at < end; at += 3) {
          r += data[at]!;
          g += data[at + 1]!;
          b += data[at + 2]!;
        }
      }
      const count = (bottom - top) * (right - left);
      out[to] = r / count;
      out[to + 1] = g / count;
      out[to + 2] = b / count;
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
