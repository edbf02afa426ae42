/**
 * How far a thing reaches: of the regions around a place in which a map is above a level, the one that changes least from
 * level to level (a maximally stable extremal region: Matas, Chum, Urban and Pajdla, 2002). What is clearest about a
 * thing may be a lamp or an eye; lower down it grows to the thing's outline, stays there, and then runs out into the rest.
 */
import type { Box, Size } from "../../geometry/box";
import { boxOfCells, connectedCells } from "../../image/connected-cells";

/** Each level is so much of the one above it. */
const NEXT_LEVEL = 0.85;
/** Levels go down to this share of the map's largest value. */
const LOWEST = 0.1;
/** Over so many levels it is measured how much a region grows. */
const SPAN = 2;
/** A larger region takes the place of the one that was found if it grows by no more than this share of what that does. */
const STEADIER = 0.35;

export interface StableRegion {
  cells: number[];
  /** The box around all that it hangs together with and that stands out at all, in cells. */
  reach: Box;
}

/**
 * Regions that reach as far as things do; those that grow into one stand once.
 *
 * @param belongsAt which cells of a grid belong at a level, 0 to 1, and fewer at a higher one
 * @param level that the regions are found at, before they grow
 * @param mostCells that a region grows to
 */
export function stableRegions(
  belongsAt: (level: number) => Uint8Array,
  level: number,
  grid: Size,
  mostCells: number,
): StableRegion[] {
  const maps: Uint8Array[] = [];
  for (let each = level; each >= LOWEST || maps.length <= SPAN; each *= NEXT_LEVEL) maps.push(belongsAt(each));
  const taken = new Set<number>();
  const found: StableRegion[] = [];
  for (const start of maps[0]!.keys()) {
    if (!maps[0]![start] || taken.has(start)) continue;
    const regions = maps.map((belongs) => connectedCells(grid, start, (cell) => belongs[cell] === 1).cells);
    const growth = regions.slice(0, -SPAN).map((cells, k) => regions[k + SPAN]!.length / cells.length - 1);
    let best = 0;
    growth.forEach((value, k) => {
      if (regions[k]!.length <= mostCells && value < STEADIER * growth[0]! && value < growth[best]!) best = k;
    });
    for (const cell of regions[best]!) taken.add(cell);
    found.push({ cells: regions[best]!, reach: boxOfCells(regions.at(-1)!, grid.width) });
  }
  return found;
}
