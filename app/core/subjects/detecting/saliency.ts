/**
 * Salient things in a picture, as wholes: how much colours change on the easiest path to a place from the picture's border
 * (the geodesic saliency of Wei, Wen, Zhu and Sun, 2012, over a grid of cells). The background is reached by small steps; a
 * thing only over its edge, and then all of it is equally far.
 */
import { type Box, moveBox, scaleBox, type Size, wholeOf } from "../../geometry/box";
import { boxOfCells } from "../../image/connected-cells";
import type { YuvImage } from "../../image/yuv-image";
import { clamped } from "../../numbers/clamped";
import type { Detection } from "./detection";
import { geodesicDistances, stepsOf } from "./geodesic-distance";
import { heldThing } from "./held-thing";
import { type LabCells, labCells, usualStep } from "./lab-cells";
import { type StableRegion, stableRegions } from "./stable-region";

/** Side of a cell, in pixels. */
const CELL = 6;
/** Free steps, as multiples of the usual one; the mean over these is used. */
const TOLERANCES = [1, 2];
/** Distance from the centre, in half pictures, at which interest has fallen to about a third. */
const MIDDLE = 1.6;
/** Share of a thing's fullest column below which columns at its edge are not of it. */
const LEAST_COLUMN = 0.15;
/** The same on a side where something leads out of the picture: an arm is lower than what it holds. */
const LEAST_COLUMN_OF_HELD = 0.45;
/** Distance in cells from the picture's border within which something leads out of it. */
const AT_BORDER = 2;
/** The same for rows: what a thing stands on may be much narrower than the rest of it. */
const LEAST_ROW = 0.25;
/** Least share of everything salient that a thing holds. */
const LEAST_MASS = 0.12;
const MAX_THINGS = 4;
/** Share of the picture above which something is not in it, but the picture itself. */
const MAX_SHARE = 0.6;
/** Multiples of the usual difference between neighbours at which a thing is clearest, and nothing. */
const CLEAR = 12;
const NOTHING = 2;

/** The level that best separates values into two groups (Otsu, 1979). */
function otsu(values: Float64Array, top: number): number {
  const bins = 64;
  const counts = new Float64Array(bins);
  for (const value of values) counts[Math.min(bins - 1, Math.floor((bins * value) / top))]!++;
  let total = 0;
  counts.forEach((count, bin) => (total += bin * count));
  let [below, sum, best, level] = [0, 0, 0, 0];
  for (let bin = 0; bin < bins - 1; bin++) {
    below += counts[bin]!;
    sum += bin * counts[bin]!;
    const above = values.length - below;
    if (below === 0 || above === 0) continue;
    const between = below * above * (sum / below - (total - sum) / above) ** 2;
    if (between > best) [best, level] = [between, bin + 1];
  }
  return (level * top) / bins;
}

/** Morphological opening of cells with a square of 3 × 3, which removes lines and specks. */
function opened(belongs: Uint8Array, { width, height }: Size): Uint8Array {
  const out = new Uint8Array(belongs.length);
  for (let y = 1; y < height - 1; y++) {
    for (let x = 1; x < width - 1; x++) {
      let whole = true;
      for (let dy = -width; dy <= width && whole; dy += width) {
        for (let dx = -1; dx <= 1; dx++) if (!belongs[y * width + x + dy + dx]) whole = false;
      }
      if (!whole) continue;
      for (let dy = -width; dy <= width; dy += width) {
        for (let dx = -1; dx <= 1; dx++) out[y * width + x + dy + dx] = 1;
      }
    }
  }
  return out;
}

/** The part of a region from the first to the last sufficiently full column or row; `shares` of the fullest. */
function trimmed(sums: readonly number[], shares: { first: number; last: number }): [number, number] {
  const fullest = Math.max(...sums);
  const first = sums.findIndex((sum) => sum >= shares.first * fullest);
  return [first, sums.findLastIndex((sum) => sum >= shares.last * fullest) + 1];
}

/** Share of its fullest column that those at a thing's sides must have. */
function leastColumns({ x, width }: Box, grid: Size): { first: number; last: number } {
  const [onLeft, onRight] = [x <= AT_BORDER, x + width >= grid.width - AT_BORDER];
  // What leads out on both sides is a branch, or a horizon.
  const isHeld = onLeft !== onRight;
  return {
    first: isHeld && onLeft ? LEAST_COLUMN_OF_HELD : LEAST_COLUMN,
    last: isHeld && onRight ? LEAST_COLUMN_OF_HELD : LEAST_COLUMN,
  };
}

/** A thing with its share of everything salient. */
interface Mass {
  box: Box;
  mass: number;
}

/** A salient thing, and how clear its salience is. */
interface Thing extends Mass {
  trust: number;
}

function masses(saliency: Float64Array, regions: readonly StableRegion[], grid: LabCells, free: number): Mass[] {
  const found: Mass[] = [];
  let all = 0;
  for (const region of regions) {
    const cells = heldThing(grid, region.cells, free);
    const box = boxOfCells(cells, grid.width);
    const columns = new Array<number>(box.width).fill(0);
    const rows = new Array<number>(box.height).fill(0);
    let mass = 0;
    for (const cell of cells) {
      mass += saliency[cell]!;
      columns[(cell % grid.width) - box.x]!++;
      rows[Math.floor(cell / grid.width) - box.y]!++;
    }
    all += mass;
    const [left, right] = trimmed(columns, leastColumns(region.reach, grid));
    const [top, bottom] = trimmed(rows, { first: LEAST_ROW, last: LEAST_ROW });
    found.push({ box: { x: box.x + left, y: box.y + top, width: right - left, height: bottom - top }, mass });
  }
  return found.map(({ box, mass }) => ({ box, mass: mass / all })).sort((a, b) => b.mass - a.mass);
}

/** Saliency of each cell, 0 to 1, and how clear it is. */
interface Saliency {
  map: Float64Array;
  trust: number;
}

/** Values relative to a high quantile; zeros where nothing is salient. */
function relative(values: Float64Array): { map: Float64Array; top: number } {
  const top = values.slice().sort()[Math.floor(0.99 * values.length)]!;
  if (top === 0) return { map: new Float64Array(values.length), top };
  return { map: values.map((value) => Math.min(1, value / top)), top };
}

/**
 * Saliency by distance from the border. The size of a step within a background is known only roughly, and one tolerance
 * joins a thing with its neighbour where another cuts it apart; real things appear at all of them.
 */
function closedOff(cells: LabCells, free: number): Saliency {
  const steps = stepsOf(cells);
  const distances = TOLERANCES.map((times) => relative(geodesicDistances(cells, steps, times * free)));
  const sums = Float64Array.from(distances[0]!.map, (_, cell) =>
    distances.reduce((sum, { map }) => sum + map[cell]!, 0),
  );
  return { map: relative(sums).map, trust: clamped((distances[0]!.top / free - NOTHING) / (CLEAR - NOTHING), 0, 1) };
}

function thingsIn({ map, trust }: Saliency, cells: LabCells, free: number): Thing[] {
  if (trust === 0) return [];
  const saliency = new Float64Array(map.length);
  for (let y = 0, i = 0; y < cells.height; y++) {
    const down = (2 * y) / cells.height - 1;
    for (let x = 0; x < cells.width; x++, i++) {
      const across = (2 * x) / cells.width - 1;
      saliency[i] = map[i]! * Math.exp(-(across * across + down * down) / (MIDDLE * MIDDLE));
    }
  }
  const level = otsu(saliency, 1);
  const belongsAt = (least: number) => {
    const belongs = new Uint8Array(saliency.length);
    for (let i = 0; i < belongs.length; i++) if (saliency[i]! > least) belongs[i] = 1;
    return opened(belongs, cells);
  };
  const regions = stableRegions(belongsAt, level, cells, MAX_SHARE * saliency.length);
  return masses(saliency, regions, cells, free)
    .filter(({ box, mass }) => mass >= LEAST_MASS && box.width * box.height < MAX_SHARE * cells.width * cells.height)
    .slice(0, MAX_THINGS)
    .map((thing) => ({ ...thing, trust }));
}

/**
 * The salient things in a picture, the most salient first; none if it is even. Their score tells how clear they are: by the
 * largest distance from the border, in steps usual in this picture.
 * @param area the part of the picture without bars, its corner at even pixels
 * @returns boxes in pixels of the picture
 */
export function salientThings(image: YuvImage, area = wholeOf(image)): Detection[] {
  const cells = labCells(image, CELL, area);
  if (cells.width < 3 || cells.height < 3) return [];
  // Steps up to the usual one cost nothing.
  const free = usualStep(cells);
  const things = thingsIn(closedOff(cells, free), cells, free);
  return things.map(({ box, mass, trust }) => ({
    kind: "salient",
    box: moveBox(scaleBox(box, CELL), area),
    score: trust * mass ** 0.25,
  }));
}
