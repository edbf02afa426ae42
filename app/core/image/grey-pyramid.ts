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
