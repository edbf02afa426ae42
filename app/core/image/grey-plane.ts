import type { Size } from "../geometry/box";
import { halvePlane, type YuvImage } from "./yuv-image";

/** Samples of grey, 0 to 255, row by row. */
export interface GreyPlane extends Size {
  samples: Uint8Array;
}

/** A picture's luma; it is not copied. */
export const lumaOf = ({ width, height, luma }: YuvImage): GreyPlane => ({ width, height, samples: luma });

/** A plane with half as many samples each way, each the mean of four. */
export function halved({ width, height, samples }: GreyPlane): GreyPlane {
  const half = { width: width >> 1, height: height >> 1 };
  return { ...half, samples: halvePlane(samples, width, half.width, half.height) };
}
