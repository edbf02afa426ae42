/**
 * What stands out in a picture in which nothing known is seen and nothing moves: contrast of lightness and colour
 * between centre and surround at several sizes (after Itti, Koch and Niebur 1998, without orientations).
 */
import { scaleBox, type Size } from "../../geometry/box";
import { connectedCells } from "../../image/connected-cells";
import type { YuvImage } from "../../image/yuv-image";
import { LumaPlane } from "../../shots/luma-plane";
import type { Detection } from "./detection";

/** Side of a cell, in pixels. */
const CELL = 8;
/** Half the side of the centre, in cells; the surround is three times as wide. */
const RADII = [1, 2, 4];
/** Cells with at least this share of the greatest contrast belong to what stands out. */
const REGION_SHARE = 0.5;
/** The greatest contrast stands out when it is so many times the mean. */
const LEAST_PROMINENCE = 2.2;
/** … and at least this, summed over sizes and channels of 0 to 255. */
const LEAST_CONTRAST = 60;
/** What takes more of the picture than this is no thing in it, but the picture itself. */
const MAX_SHARE = 0.2;
/** How far from the middle, in half pictures, interest has fallen to about a third. */
const MIDDLE = 1.1;

/** Means of blocks of a plane. */
function cellsOf(plane: Uint8Array, stride: number, side: number, columns: number, rows: number): LumaPlane {
  const out = new Float32Array(columns * rows);
  for (let y = 0; y < rows * side; y++) {
    const row = Math.floor(y / side) * columns;
    for (let x = 0; x < columns * side; x++) out[row + Math.floor(x / side)]! += plane[y * stride + x]!;
  }
  return new LumaPlane(
    out.map((sum) => sum / (side * side)),
    columns,
    rows,
  );
}

/** Mean of the cells around one, as far as they are in the picture. */
function meanAround(plane: LumaPlane, x: number, y: number, radius: number): number {
  const left = Math.max(0, x - radius);
  const top = Math.max(0, y - radius);
  const width = Math.min(plane.columns, x + radius + 1) - left;
  const height = Math.min(plane.rows, y + radius + 1) - top;
  return plane.sum(left, top, width, height) / (width * height);
}

/** Contrast of each cell with what is around it. */
function contrasts(image: YuvImage, { width: columns, height: rows }: Size): Float32Array {
  const half = image.width >> 1;
  const planes = [
    { plane: cellsOf(image.luma, image.width, CELL, columns, rows), weight: 1 },
    { plane: cellsOf(image.blue, half, CELL / 2, columns, rows), weight: 2.5 },
    { plane: cellsOf(image.red, half, CELL / 2, columns, rows), weight: 2.5 },
  ];
  const out = new Float32Array(columns * rows);
  for (let y = 0; y < rows; y++) {
    for (let x = 0; x < columns; x++) {
      let sum = 0;
      for (const { plane, weight } of planes) {
        for (const radius of RADII) {
          const apart = meanAround(plane, x, y, radius) - meanAround(plane, x, y, 3 * radius);
          sum += weight * Math.abs(apart);
        }
      }
      const away = Math.hypot((2 * x) / columns - 1, (2 * y) / rows - 1);
      out[y * columns + x] = sum * Math.exp(-((away / MIDDLE) ** 2));
    }
  }
  return out;
}

/** The region that stands out most; null if the picture is even. */
export function salientThing(image: YuvImage): Detection | null {
  const size = { width: Math.floor(image.width / CELL), height: Math.floor(image.height / CELL) };
  const contrast = contrasts(image, size);
  let peak = 0;
  let mean = 0;
  for (let i = 0; i < contrast.length; i++) {
    if (contrast[i]! > contrast[peak]!) peak = i;
    mean += contrast[i]! / contrast.length;
  }
  const prominence = contrast[peak]! / Math.max(mean, 1);
  if (prominence < LEAST_PROMINENCE || contrast[peak]! < LEAST_CONTRAST) return null;
  const threshold = REGION_SHARE * contrast[peak]!;
  const { box } = connectedCells(size, peak, (cell) => contrast[cell]! >= threshold);
  if (box.width * box.height > MAX_SHARE * size.width * size.height) return null;
  return { kind: "salient", box: scaleBox(box, CELL), score: Math.min(1, prominence / (3 * LEAST_PROMINENCE) + 0.3) };
}
