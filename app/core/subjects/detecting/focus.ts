/**
 * Where a picture is in focus: how strongly the luma curves, cell by cell (the modified Laplacian of Nayar and Nakagawa,
 * "Shape from focus", 1994, here with both directions summed before the magnitude is taken). A camera focused on a thing
 * leaves what is before and behind it soft.
 */
import { clamped } from "../../numbers/clamped";
import type { Box, Size } from "../../geometry/box";
import type { YuvImage } from "../../image/yuv-image";
import { laplacianAt } from "./sharpness";

/** Quantile of the cells that is grain and compression noise; so are values up to a multiple of it. */
const QUIET_SHARE = 0.2;
const QUIET = 1.5;
/** Largest contribution of a single hard edge, as of a letter. */
const MOST = 60;
/** Radius in cells, and number of passes, of smoothing: a thing is smooth inside its outline. */
const REACH = 2;
const TIMES = 2;

/** Mean magnitude of the Laplacian in each cell, 0 to above 255. */
function curvature({ luma, width }: YuvImage, side: number, area: Box, grid: Size): Float64Array<ArrayBuffer> {
  const out = new Float64Array(grid.width * grid.height);
  for (let row = 0, cell = 0; row < grid.height; row++) {
    for (let column = 0; column < grid.width; column++, cell++) {
      let sum = 0;
      // The outermost pixels are left out, so that nothing beside the area is read.
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
 * How much each cell is in focus.
 * @param side of a cell, in pixels
 * @param area the part of the picture that is covered by cells
 * @param grid number of cells
 * @returns a value per cell, 0 where there is nothing but grain
 */
export function focusMap(image: YuvImage, side: number, area: Box, grid: Size): Float64Array {
  const curved = curvature(image, side, area, grid);
  const quiet = QUIET * curved.slice().sort()[Math.floor(QUIET_SHARE * curved.length)]!;
  let focus = curved.map((value) => clamped(value - quiet, 0, MOST));
  for (let time = 0; time < TIMES; time++) focus = smoothed(focus, grid);
  return focus;
}
