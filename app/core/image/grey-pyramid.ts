import { halvePlane, type YuvImage } from "./yuv-image";

/** Samples of grey, 0 to 255, row by row. */
export interface GreyPlane {
  width: number;
  height: number;
  samples: Uint8Array;
}

/** Pixels of the picture to a sample of the largest level, each way. */
export const PYRAMID_SCALE = 2;

/** Levels of a pyramid: enough that a shift of an eighth of the picture is a few samples in the smallest. */
const LEVELS = 4;

function halve({ width, height, samples }: GreyPlane): GreyPlane {
  const half = { width: width >> 1, height: height >> 1 };
  return { ...half, samples: halvePlane(samples, width, half.width, half.height) };
}

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
  const levels = [halve({ width: image.width, height: image.height, samples: image.luma })];
  while (levels.length < LEVELS) {
    const next = halve(levels.at(-1)!);
    if (Math.min(next.width, next.height) < 8) break;
    levels.push(next);
  }
  return levels;
}
