import { type GreyPlane, halved, lumaOf } from "./grey-plane";
import type { YuvImage } from "./yuv-image";

/** Pixels of the picture to a sample of the largest level, each way. */
export const PYRAMID_SCALE = 2;

/** Levels of a pyramid: enough that a shift of an eighth of the picture is a few samples in the smallest. */
const LEVELS = 4;

/** Mean difference of the smallest levels, of 255, from which on a picture shows something else than the one before. */
const OTHER = 20;

/** Whether a picture shows something else than another: a cut or a flash is between them, or the camera was thrown round. */
export function showsOther(before: readonly GreyPlane[], now: readonly GreyPlane[]): boolean {
  const [a, b] = [before, now].map((pyramid) => pyramid.at(-1)!.samples) as [Uint8Array, Uint8Array];
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += Math.abs(a[i]! - b[i]!);
  return sum > OTHER * a.length;
}

/** The picture's luma in half its size, and again in halves of that; the largest first. */
export function greyPyramid(image: YuvImage): GreyPlane[] {
  const levels = [halved(lumaOf(image))];
  while (levels.length < LEVELS) {
    const next = halved(levels.at(-1)!);
    if (Math.min(next.width, next.height) < 8) break;
    levels.push(next);
  }
  return levels;
}
