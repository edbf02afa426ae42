import { clamped } from "../numbers/clamped";
import type { Size } from "../geometry/box";
import { KernelMemory, loops } from "../kernel/kernel";

/**
 * A picture in planes: luma at full size, chroma at half of it each way (4:2:0), 8 bits in Rec.709's limited range. Rows
 * from the top, without padding; width and height are even.
 */
export interface YuvImage extends Size {
  luma: Uint8Array;
  /** Blue and red chroma, 128 for none. */
  blue: Uint8Array;
  red: Uint8Array;
}

/** From luma of limited range, 16 to 235, to 0 to 255. */
export const FULL_LUMA = Uint8Array.from({ length: 256 }, (_, y) => clamped(((y - 16) * 255) / 219, 0, 255));
/** From chroma of limited range to full range, both around 128. */
export const FULL_CHROMA = Uint8Array.from({ length: 256 }, (_, c) => clamped(((c - 128) * 255) / 224 + 128, 0, 255));

/** Views consecutive planes in a buffer, without a copy. */
export function yuvImage(data: Uint8Array, { width, height }: Size): YuvImage {
  const plane = width * height;
  const half = plane >> 2;
  return {
    width,
    height,
    luma: data.subarray(0, plane),
    blue: data.subarray(plane, plane + half),
    red: data.subarray(plane + half, plane + 2 * half),
  };
}

/** The part of a picture below a row and left of a column, both even; copied unless it has the picture's whole width. */
export function cropYuv(image: YuvImage, firstRow: number, size: Size): YuvImage {
  const cut = (plane: Uint8Array, stride: number, row: number, width: number, height: number) => {
    if (width === stride) return plane.subarray(row * stride, (row + height) * stride);
    const out = new Uint8Array(width * height);
    for (let y = 0; y < height; y++) {
      const from = (row + y) * stride;
      out.set(plane.subarray(from, from + width), y * width);
    }
    return out;
  };
  const { width, height } = size;
  const halfCut = (plane: Uint8Array) => cut(plane, image.width >> 1, firstRow >> 1, width >> 1, height >> 1);
  return {
    width,
    height,
    luma: cut(image.luma, image.width, firstRow, width, height),
    blue: halfCut(image.blue),
    red: halfCut(image.red),
  };
}

/** A plane at half the size each way, each sample the mean of four. */
export function halvePlane(plane: Uint8Array, stride: number, width: number, height: number): Uint8Array {
  const memory = new KernelMemory();
  const [from, to] = [memory.put(plane), memory.take(width * height)];
  loops().halve(from, stride, to, width, height);
  return memory.bytes(to, width * height).slice();
}

/** A picture at half the size, made even. */
export function halveYuv(image: YuvImage): YuvImage {
  const [width, height] = [(image.width >> 2) << 1, (image.height >> 2) << 1];
  const halfChroma = (plane: Uint8Array) => halvePlane(plane, image.width >> 1, width >> 1, height >> 1);
  return {
    width,
    height,
    luma: halvePlane(image.luma, image.width, width, height),
    blue: halfChroma(image.blue),
    red: halfChroma(image.red),
  };
}
