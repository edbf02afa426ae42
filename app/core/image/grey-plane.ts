import type { Size } from "../geometry/box";
import { halvePlane, type YuvImage } from "./yuv-image";

/** Grey samples, 0 to 255, in row-major order. */
export interface GreyPlane extends Size {
  samples: Uint8Array;
}

/** A picture's luma, without a copy. */
export const lumaOf = ({ width, height, luma }: YuvImage): GreyPlane => ({ width, height, samples: luma });

/** A plane at half the size each way, each sample the mean of four. */
export function halved({ width, height, samples }: GreyPlane): GreyPlane {
  const half = { width: width >> 1, height: height >> 1 };
  return { ...half, samples: halvePlane(samples, width, half.width, half.height) };
}
