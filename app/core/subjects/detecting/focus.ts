/**
 * Where a picture is in focus: how strongly the luma curves, cell by cell (the modified Laplacian of Nayar and Nakagawa,
 * "Shape from focus", 1994, here with both directions summed before the magnitude is taken). A camera that is set to a
 * thing leaves what is before and behind it soft.
 */
import { clamped } from "../../numbers/clamped";
import type { Box, Size } from "../../geometry/box";
import type { YuvImage } from "../../image/yuv-image";
import { laplacianAt } from "./sharpness";

/** What this share of the cells stays under is grain and compression; and that many times as much still is. */
const QUIET_SHARE = 0.2;
const QUIET = 1.5;
/** A single hard edge, as of a letter, counts no more than this. */
const MOST = 60;
/** A cell's neighbours that it is smoothed over, each way, and how often: a thing is smooth within its outline. */
const REACH = 2;
const TIMES = 2;

/** Mean magnitude of the Laplacian within each cell, 0 to 255 and more. */
function curvature({ luma, width }: YuvImage, side: number, area: Box, grid: Size): Float64Array<ArrayBuffer> {
  const out = new Float64Array(grid.width * grid.height);
  for (let row = 0, cell = 0; row < grid.height; row++) {
    for (let column = 0; column < grid.width; column++, cell++) {
      let sum = 0;
      // The outermost pixels are left out, so that nothing beside the area is looked at.
      for (let y = 1; y < side - 1; y++) {
        const first = (area.y + row * side + y) * width + area.x + column * side + 1;
        for (let at = first; at < first + side - 2; at++) sum += laplacianAt(luma, width, at);
      }
      out[cell] = sum / (side - 2) ** 2;
    }
  }
  return out;
}

/** Means over each cell and its neighbours. */
function smoothed(values: Float64Array, { width, height }: Size): Float64Array<ArrayBuffer> {
  const out = new Float64Array(values.length);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      let [sum, count] = [0, 0];
      for (let j = Math.max(0, y - REACH); j <= Math.min(height - 1, y + REACH); j++)
        for (let i = Math.max(0, x - REACH); i <= Math.min(width - 1, x + REACH); i++, count++)
          sum += values[j * width + i]!;
      out[y * width + x] = sum / count;
    }
  }
  return out;
}

/**
 * How far each cell is in focus.
 *
 * @param side of a cell, in pixels
 * @param area the part of the picture that is covered by cells
 * @param grid how many cells
 * @returns a value for each cell, 0 where there is nothing but grain
 */
export function focusMap(image: YuvImage, side: number, area: Box, grid: Size): Float64Array {
  const curved = curvature(image, side, area, grid);
  const quiet = QUIET * curved.slice().sort()[Math.floor(QUIET_SHARE * curved.length)]!;
  let focus = curved.map((value) => clamped(value - quiet, 0, MOST));
  for (let time = 0; time < TIMES; time++) focus = smoothed(focus, grid);
  return focus;
}
