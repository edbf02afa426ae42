import { type Box, clipBox } from "../../geometry/box";
import type { YuvImage } from "../../image/yuv-image";

/** Magnitude of the Laplacian at a sample that is not at the picture's border. */
export const laplacianAt = (luma: Uint8Array, width: number, at: number): number =>
  Math.abs(4 * luma[at]! - luma[at - 1]! - luma[at + 1]! - luma[at - width]! - luma[at + width]!);

/** Mean magnitude of the Laplacian in a box, and the standard deviation of its luma; null where it is too small. */
function detailIn(image: YuvImage, box: Box): { laplacian: number; deviation: number } | null {
  const part = clipBox(box, image);
  const { luma, width } = image;
  const left = Math.max(1, Math.ceil(part.x));
  const top = Math.max(1, Math.ceil(part.y));
  const right = Math.min(width - 1, Math.floor(part.x + part.width));
  const bottom = Math.min(image.height - 1, Math.floor(part.y + part.height));
  const count = (right - left) * (bottom - top);
  if (right - left < 4 || bottom - top < 4) return null;
  let sum = 0;
  let squares = 0;
  let laplacian = 0;
  for (let y = top; y < bottom; y++) {
    for (let at = y * width + left, end = at + right - left; at < end; at++) {
      const value = luma[at]!;
      sum += value;
      squares += value * value;
      laplacian += laplacianAt(luma, width, at);
    }
  }
  const mean = sum / count;
  return { laplacian: laplacian / count, deviation: Math.sqrt(Math.max(0, squares / count - mean * mean)) };
}

/**
 * Sharpness of the picture in a box: mean magnitude of the Laplacian relative to the contrast, 0 for none. Only comparable
 * between boxes of one film.
 */
export function sharpnessOf(image: YuvImage, box: Box): number {
  const detail = detailIn(image, box);
  return detail ? detail.laplacian / (detail.deviation + 4) : 0;
}

/** The compared parts at both sides of a thing, as a share of its width. */
const END = 1 / 3;

/** The side of a thing with more detail, such as eyes and muzzle: -1 all at the left to 1 all at the right. */
export function detailSide(image: YuvImage, box: Box): number {
  const width = END * box.width;
  const [left, right] = [box.x, box.x + box.width - width].map((x) => detailIn(image, { ...box, x, width })?.laplacian);
  return left === undefined || right === undefined ? 0 : (right - left) / Math.max(1e-6, right + left);
}
