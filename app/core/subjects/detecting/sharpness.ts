import { type Box, clipBox } from "../../geometry/box";
import type { YuvImage } from "../../image/yuv-image";

/**
 * How sharp the picture in a box is: mean size of the Laplacian beside the contrast, 0 for nothing. Only comparable
 * between boxes of one film.
 */
export function sharpnessOf(image: YuvImage, box: Box): number {
  const part = clipBox(box, image);
  const { luma, width } = image;
  const left = Math.max(1, Math.ceil(part.x));
  const top = Math.max(1, Math.ceil(part.y));
  const right = Math.min(width - 1, Math.floor(part.x + part.width));
  const bottom = Math.min(image.height - 1, Math.floor(part.y + part.height));
  const count = (right - left) * (bottom - top);
  if (right - left < 4 || bottom - top < 4) return 0;
  let sum = 0;
  let squares = 0;
  let laplacian = 0;
  for (let y = top; y < bottom; y++) {
    for (let at = y * width + left, end = at + right - left; at < end; at++) {
      const value = luma[at]!;
      sum += value;
      squares += value * value;
      laplacian += Math.abs(4 * value - luma[at - 1]! - luma[at + 1]! - luma[at - width]! - luma[at + width]!);
    }
  }
  const mean = sum / count;
  const deviation = Math.sqrt(Math.max(0, squares / count - mean * mean));
  return laplacian / count / (deviation + 4);
}
