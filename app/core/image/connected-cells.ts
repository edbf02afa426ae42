import type { Box, Size } from "../geometry/box";

export interface Region {
  /** Indices of the cells, in row-major order. */
  cells: number[];
  /** The box around them, in cells. */
  box: Box;
}

/**
 * The cells of a grid connected with one of them.
 * @param belongs whether a cell, by its row-major index, is one of those looked for
 * @param reach largest distance on each axis, in cells, between connected cells
 */
export function connectedCells(
  { width, height }: Size,
  start: number,
  belongs: (cell: number) => boolean,
  reach = 1,
): Region {
  const cells = [start];
  const found = new Uint8Array(width * height);
  found[start] = 1;
  for (const cell of cells) {
    const column = cell % width;
    const row = Math.floor(cell / width);
    for (let y = Math.max(0, row - reach); y <= Math.min(height - 1, row + reach); y++) {
      for (let x = Math.max(0, column - reach); x <= Math.min(width - 1, column + reach); x++) {
        const neighbour = y * width + x;
        if (found[neighbour] || !belongs(neighbour)) continue;
        found[neighbour] = 1;
        cells.push(neighbour);
      }
    }
  }
  return { cells, box: boxOfCells(cells, width) };
}

/**
 * The box around some cells, in cells.
 *
 * @param width of the grid
 */
export function boxOfCells(cells: readonly number[], width: number): Box {
  let left = Infinity;
  let top = Infinity;
  let right = 0;
  let bottom = 0;
  for (const cell of cells) {
    const column = cell % width;
    const row = Math.floor(cell / width);
    left = Math.min(left, column);
    right = Math.max(right, column + 1);
    top = Math.min(top, row);
    bottom = Math.max(bottom, row + 1);
  }
  return { x: left, y: top, width: right - left, height: bottom - top };
}
