/**
 * Distances of cells from a picture's border, where the length of a path is the change of colours along it (Wei, Wen, Zhu
 * and Sun, "Geodesic saliency using background priors", 2012).
 */
import type { Size } from "../../geometry/box";
import { apart, type LabCells } from "./lab-cells";

/** Steps within which colours at the picture's foot equal those at another side. */
const FOOT_STEPS = 3;

/**
 * The paths from a cell to those before it, in row-major order, as steps in the grid; the same reversed lead to those after
 * it.
 */
const before = (width: number): number[] => [-width - 1, -width, -width + 1, -1];

/** Colour differences of neighbours, and of the cells at the picture's foot to the nearest at another side. */
export interface Steps {
  /** For each path of `before`, from each cell. */
  ways: Float64Array[];
  foot: Float64Array;
}

/** Computed once for distances with any tolerance: comparing colours takes about as long as one of those. */
export function stepsOf(cells: LabCells): Steps {
  const { width, height } = cells;
  const ways = before(width).map((way) => {
    const steps = new Float64Array(width * height);
    for (let cell = width + 1; cell < steps.length; cell++) steps[cell] = apart(cells, cell, cell + way);
    return steps;
  });
  const sides = [...Array(width * height).keys()].filter(
    (cell) => cell < width || cell % width === 0 || cell % width === width - 1,
  );
  const foot = Float64Array.from({ length: width }, (_, x) =>
    sides.reduce((least, side) => Math.min(least, apart(cells, (height - 1) * width + x, side)), Infinity),
  );
  return { ways, foot };
}

/** One pass over all cells except the border's, forwards or backwards; returns whether any distance decreased. */
function handOn(
  distance: Float64Array,
  { width, height }: Size,
  ways: Float64Array[],
  free: number,
  back: boolean,
): boolean {
  let changed = false;
  const last = width * height - 1;
  const neighbours = before(width);
  for (let y = 1; y < height - 1; y++) {
    for (let i = 0; i < neighbours.length; i++) {
      const [way, steps] = [neighbours[i]!, ways[i]!];
      for (let cell = y * width + 1; cell < y * width + width - 1; cell++) {
        const to = back ? last - cell : cell;
        const from = back ? to - way : to + way;
        const reached = distance[from]! + Math.max(0, steps[back ? from : to]! - free);
        if (reached >= distance[to]!) continue;
        distance[to] = reached;
        changed = true;
      }
    }
  }
  return changed;
}

/**
 * The smallest sum of steps from the border to each cell. Passes forwards and backwards over the grid propagate it between
 * neighbours until nothing changes.
 * @param free steps up to this one cost nothing; as measured by `apart`
 * @returns the distances, in row-major order
 */
export function geodesicDistances(size: Size, { ways, foot }: Steps, free: number): Float64Array {
  const { width, height } = size;
  const distance = new Float64Array(width * height).fill(Infinity);
  for (let x = 0; x < width; x++) distance[x] = 0;
  for (let y = 0; y < height; y++) distance[y * width] = distance[y * width + width - 1] = 0;
  // Somebody in front of the camera reaches down to the picture's foot, which is background only as far as the other sides
  // have its colours.
  for (let x = 1; x < width - 1; x++) distance[(height - 1) * width + x] = Math.max(0, foot[x]! - FOOT_STEPS * free);
  let changed = true;
  while (changed) {
    const there = handOn(distance, size, ways, free, false);
    changed = handOn(distance, size, ways, free, true) || there;
  }
  return distance;
}
