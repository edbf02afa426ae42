/** Pixels laid over a frame, as planes of its format. */
import { clamped } from "~/core/numbers/clamped";
import type { Box, Size } from "~/core/geometry/box";

/** A layer over one plane: its samples, multiplied by their cover, and the cover. */
export interface OverlayPlane {
  /** Its start, in the plane's own samples. */
  x: number;
  y: number;
  /** Bytes per row, a multiple of 8; those beyond the width are 0. */
  stride: number;
  height: number;
  made: Uint8Array;
  cover: Uint8Array;
}

const STRIDE = 8;

/** The smallest box on even pixels around the part of a box inside a frame: whole chroma samples. */
export function evenBox({ x, y, width, height }: Box, frame: Size): Box {
  const span = (from: number, length: number, limit: number): [number, number] => {
    const low = 2 * Math.floor(Math.max(0, from) / 2);
    return [low, Math.max(0, 2 * Math.ceil(Math.min(limit, from + length) / 2) - low)];
  };
  const [left, across] = span(x, width, frame.width);
  const [top, down] = span(y, height, frame.height);
  return { x: left, y: top, width: across, height: down };
}

const empty = (box: Box, subsampling: 1 | 2): OverlayPlane => {
  const stride = STRIDE * Math.ceil(box.width / subsampling / STRIDE);
  const height = box.height / subsampling;
  const bytes = stride * height;
  return {
    x: box.x / subsampling,
    y: box.y / subsampling,
    stride,
    height,
    made: new Uint8Array(bytes),
    cover: new Uint8Array(bytes),
  };
};

/** A part of a 4:2:0 frame as opaque planes. */
export function opaquePlanes(frame: Uint8Array, size: Size, box: Box): OverlayPlane[] {
  let at = 0;
  return ([1, 2, 2] as const).map((subsampling) => {
    const plane = empty(box, subsampling);
    const row = size.width / subsampling;
    for (let y = 0; y < plane.height; y++) {
      const from = at + (plane.y + y) * row + plane.x;
      plane.made.set(frame.subarray(from, from + box.width / subsampling), y * plane.stride);
      plane.cover.fill(255, y * plane.stride, y * plane.stride + box.width / subsampling);
    }
    at += (row * size.height) / subsampling;
    return plane;
  });
}

/**
 * Planes of luma and chroma (Rec.709, limited range, 4:2:0, chroma sited left) from premultiplied RGBA pixels.
 * @param box their place in the frame, on even pixels
 */
export function overlayOf(rgba: Uint8Array | Uint8ClampedArray, box: Box): OverlayPlane[] {
  const { width, height } = box;
  const [luma, blue, red] = [empty(box, 1), empty(box, 2), empty(box, 2)];
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const i = 4 * (y * width + x);
      const [r, g, b, a] = [rgba[i]!, rgba[i + 1]!, rgba[i + 2]!, rgba[i + 3]!];
      if (a === 0) continue;
      const at = y * luma.stride + x;
      luma.cover[at] = a;
      luma.made[at] = Math.round((16 * a + 219 * (0.2126 * r + 0.7152 * g + 0.0722 * b)) / 255);
    }
  }
  for (let y = 0; y < height / 2; y++) {
    for (let x = 0; x < width / 2; x++) {
      const [r, g, b, a] = chromaSample(rgba, box, x, y);
      if (a === 0) continue;
      const lightness = 0.2126 * r + 0.7152 * g + 0.0722 * b;
      const at = y * blue.stride + x;
      blue.cover[at] = red.cover[at] = Math.round(a);
      blue.made[at] = Math.round((128 * a + (224 * (b - lightness)) / 1.8556) / 255);
      red.made[at] = Math.round((128 * a + (224 * (r - lightness)) / 1.5748) / 255);
    }
  }
  return [luma, blue, red];
}

/** Mean of the pixels of a chroma sample: its own column with half of each beside it, over two rows. */
function chromaSample(
  rgba: Uint8Array | Uint8ClampedArray,
  { width }: Size,
  x: number,
  y: number,
): [number, number, number, number] {
  const sum: [number, number, number, number] = [0, 0, 0, 0];
  for (const row of [2 * y, 2 * y + 1]) {
    for (const [dx, weight] of [
      [-1, 1],
      [0, 2],
      [1, 1],
    ] as const) {
      const column = clamped(2 * x + dx, 0, width - 1);
      const i = 4 * (row * width + column);
      for (let channel = 0; channel < 4; channel++) sum[channel]! += (weight * rgba[i + channel]!) / 8;
    }
  }
  return sum;
}
