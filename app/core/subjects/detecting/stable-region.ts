/**
 * The extent of a thing: of the regions around a place in which a map is above a level, the one that changes least from
 * level to level (a maximally stable extremal region: Matas, Chum, Urban and Pajdla, 2002). The clearest part of a thing
 * may be a lamp or an eye; at lower levels it grows to the thing's outline, stays there, and then spreads into the rest.
 */
import type { Box, Size } from "../../geometry/box";
import { boxOfCells, connectedCells } from "../../image/connected-cells";

/** Ratio of successive levels. */
const NEXT_LEVEL = 0.85;
/** Lowest level, as a share of the map's largest value. */
const LOWEST = 0.1;
/** Levels over which the growth of a region is measured. */
const SPAN = 2;
/** Growth of a larger region, relative to that of the one found, at which it takes its place. */
const STEADIER = 0.35;

export interface StableRegion {
  cells: number[];
  /** The box around everything salient that it is connected with, in cells. */
  reach: Box;
}

/**
 * Regions grown to the extent of things; those that grow into one are listed once.
 * @param belongsAt cells of a grid that belong at a level, 0 to 1, fewer at a higher one
 * @param level at which the regions are found, before they grow
 * @param mostCells to which a region grows
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
