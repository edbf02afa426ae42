/** A picture as a coarse grid of perceptual colours. */
import { type Box, type Size, wholeOf } from "../../geometry/box";
import { clamped } from "../../numbers/clamped";
import { FULL_CHROMA, FULL_LUMA, type YuvImage } from "../../image/yuv-image";
import { median } from "../../numbers/median";

/** Mean colours of cells, in row-major order; lightness and both colour axes on scales of about 255. */
export interface LabCells extends Size {
  lightness: Float32Array;
  a: Float32Array;
  b: Float32Array;
}

/** Colour difference of two cells. (`Math.hypot` guards against overflow, and takes several times as long.) */
export const apart = ({ lightness, a, b }: LabCells, i: number, j: number): number =>
  Math.sqrt((lightness[i]! - lightness[j]!) ** 2 + (a[i]! - a[j]!) ** 2 + (b[i]! - b[j]!) ** 2);

/** Bounds of the usual step between neighbouring cells. */
const LEAST_STEP = 4;
const MOST_STEP = 40;

/** The usual colour difference of neighbouring cells in a picture. */
export function usualStep(cells: LabCells): number {
  const { width, height } = cells;
  const steps: number[] = [];
  for (let y = 0; y < height; y++) {
    for (let x = 0; x + 1 < width; x++) steps.push(apart(cells, y * width + x, y * width + x + 1));
  }
  return clamped(median(steps), LEAST_STEP, MOST_STEP);
}

/** Means of square blocks of a plane, starting at an index. */
function blockMeans(
  plane: Uint8Array,
  first: number,
  stride: number,
  side: number,
  { width, height }: Size,
): Float32Array {
  const means = new Float32Array(width * height);
  for (let y = 0; y < height * side; y++) {
    const row = Math.floor(y / side) * width;
    for (let x = 0; x < width; x++) {
      let sum = 0;
      for (let at = first + y * stride + x * side, end = at + side; at < end; at++) sum += plane[at]!;
      means[row + x]! += sum / (side * side);
    }
  }
  return means;
}

/** Linear light, 0 to 1, of a value of the Rec.709 transfer function, approximated by a power. */
const LINEAR = Float32Array.from({ length: 256 }, (_, value) => (value / 255) ** 2.2);
const linear = (value: number) => LINEAR[clamped(Math.round(value), 0, 255)]!;
/** The cube root of CIE's lightness, with its straight part near black. */
const seen = (t: number) => (t > 0.008856 ? Math.cbrt(t) : 7.787 * t + 16 / 116);

/**
 * Colours of a picture's cells in CIE L*a*b* (D65).
 * @param side of a cell, in pixels; even
 * @param area the part of the picture that is covered by cells, its corner at even pixels
 */
export function labCells(image: YuvImage, side: number, area: Box = wholeOf(image)): LabCells {
  const size = { width: Math.floor(area.width / side), height: Math.floor(area.height / side) };
  const half = image.width >> 1;
  const chroma = (area.y >> 1) * half + (area.x >> 1);
  const luma = blockMeans(image.luma, area.y * image.width + area.x, image.width, side, size);
  const blue = blockMeans(image.blue, chroma, half, side / 2, size);
  const red = blockMeans(image.red, chroma, half, side / 2, size);
  const cells: LabCells = {
    ...size,
    lightness: new Float32Array(luma.length),
    a: new Float32Array(luma.length),
    b: new Float32Array(luma.length),
  };
  for (let i = 0; i < luma.length; i++) {
    const y = FULL_LUMA[Math.round(luma[i]!)]!;
    const cb = FULL_CHROMA[Math.round(blue[i]!)]! - 128;
    const cr = FULL_CHROMA[Math.round(red[i]!)]! - 128;
    const [r, g, b] = [linear(y + 1.5748 * cr), linear(y - 0.1873 * cb - 0.4681 * cr), linear(y + 1.8556 * cb)];
    const fx = seen((0.4124 * r + 0.3576 * g + 0.1805 * b) / 0.9505);
    const fy = seen(0.2126 * r + 0.7152 * g + 0.0722 * b);
    const fz = seen((0.0193 * r + 0.1192 * g + 0.9505 * b) / 1.089);
    cells.lightness[i] = 2.55 * (116 * fy - 16);
    cells.a[i] = 500 * (fx - fy);
    cells.b[i] = 200 * (fy - fz);
  }
  return cells;
}
