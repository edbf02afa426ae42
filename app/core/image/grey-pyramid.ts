import { type GreyPlane, halved, lumaOf } from "./grey-plane";
import type { YuvImage } from "./yuv-image";

/** Pixels of the picture per sample of the largest level, each way. */
export const PYRAMID_SCALE = 2;

/** Levels of a pyramid: enough that a shift by an eighth of the picture is a few samples in the smallest. */
const LEVELS = 4;

/** Mean difference of the smallest levels, of 255, above which two pictures show different things. */
const OTHER = 20;

/** Whether two pictures show different things: a cut or flash lies between them, or a whip pan. */
export function showsOther(before: readonly GreyPlane[], now: readonly GreyPlane[]): boolean {
  const [a, b] = [before, now].map((pyramid) => pyramid.at(-1)!.samples) as [Uint8Array, Uint8Array];
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += Math.abs(a[i]! - b[i]!);
  return sum > OTHER * a.length;
}

/** The picture's luma at half its size, and at successive halves of that; the largest first. */
export function greyPyramid(image: YuvImage): GreyPlane[] {
  const levels = [halved(lumaOf(image))];
  while (levels.length < LEVELS) {
    const next = halved(levels.at(-1)!);
    if (Math.min(next.width, next.height) < 8) break;
    levels.push(next);
  }
  return levels;
}
