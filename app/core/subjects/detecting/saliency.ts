/**
 * What stands out in a picture, as whole things: how much the colours have to change on the easiest way to a place from
 * the picture's border (the geodesic saliency of Wei, Wen, Zhu and Sun, 2012, over a grid of cells). What lies behind is
 * reached by small steps; a thing only over its edge, and then all of it is as far away.
 */
import { type Box, moveBox, scaleBox, type Size, wholeOf } from "../../geometry/box";
import { boxOfCells } from "../../image/connected-cells";
import type { YuvImage } from "../../image/yuv-image";
import { clamped } from "../../numbers/clamped";
import { mean } from "../../numbers/mean";
import type { Detection } from "./detection";
import { focusMap } from "./focus";
import { geodesicDistances, stepsOf } from "./geodesic-distance";
import { heldThing } from "./held-thing";
import { type LabCells, labCells, usualStep } from "./lab-cells";
import { rareColours } from "./rare-colours";
import { type StableRegion, stableRegions } from "./stable-region";

/** Side of a cell, in pixels. */
const CELL = 6;
/** Steps up to so many times the usual one cost nothing; the mean over several of these is what counts. */
const TOLERANCES = [1, 2];
/** How far from the middle, in half pictures, interest has fallen to about a third. */
const MIDDLE = 1.6;
/** Columns at a thing's edge with less than this share of its fullest are not of it. */
const LEAST_COLUMN = 0.15;
/** The same on a side on which something leads out of the picture: an arm is lower than what it holds. */
const LEAST_COLUMN_OF_HELD = 0.45;
/** What ends within so many cells of the picture's border leads out of it. */
const AT_BORDER = 2;
/** The same as for columns for rows: what a thing stands on may be much narrower than the rest of it. */
const LEAST_ROW = 0.25;
/** A thing holds at least this share of all that stands out. */
const LEAST_MASS = 0.12;
const MAX_THINGS = 4;
/** What takes more of the picture than this is no thing in it, but the picture itself. */
const MAX_SHARE = 0.6;
/** So many times the usual difference of neighbours is as clear as it gets, and so many are nothing. */
const CLEAR = 12;
const NOTHING = 2;
/** One measure that is this sure needs no other. */
const ENOUGH = 0.2;
/** The rarest colour is so many times as rare as is usual where it is as clear as it gets, and where it is nothing. */
const RARE = 9;
const ALIKE = 3;
/** The place most in focus is so many times as sharp as is usual where it is the only one, and where all is sharp. */
const ONE_SHARP = 8;
const ALL_SHARP = 4;
/** … and so many times where that alone tells that it is what the camera was set to. */
const ALONE_SHARP = 16;
/** The most by which being out of focus takes from interest. */
const MOST_FOR_FOCUS = 0.5;
/** Less than this, as a difference of colours on scales of 255, is hardly a colour of its own. */
const LEAST_RARITY = 25;

/** The level that parts values best into two groups (Otsu, 1979). */
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

/** Cells that belong, without lines and specks that a square of 3 × 3 does not fit into. */
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

/** The part of a region from the first column or row that is full enough to the last; `shares` of the fullest. */
function trimmed(sums: readonly number[], shares: { first: number; last: number }): [number, number] {
  const fullest = Math.max(...sums);
  const first = sums.findIndex((sum) => sum >= shares.first * fullest);
  return [first, sums.findLastIndex((sum) => sum >= shares.last * fullest) + 1];
}

/** What share of a thing's fullest column those at its sides have to have. */
function leastColumns({ x, width }: Box, grid: Size): { first: number; last: number } {
  const [onLeft, onRight] = [x <= AT_BORDER, x + width >= grid.width - AT_BORDER];
  // What leads out on both sides is a branch, or a horizon.
  const isHeld = onLeft !== onRight;
  return {
    first: isHeld && onLeft ? LEAST_COLUMN_OF_HELD : LEAST_COLUMN,
    last: isHeld && onRight ? LEAST_COLUMN_OF_HELD : LEAST_COLUMN,
  };
}

/** A thing with its share of all that stands out. */
interface Mass {
  box: Box;
  mass: number;
}

/** What stands out, and how clear it is that anything does. */
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

/** How much each cell stands out, 0 to 1, and how clear it is that anything does. */
interface Saliency {
  map: Float64Array;
  trust: number;
}

/** Values beside what nearly all of them stay under, and how many times the mean that is; zeros where nothing stands out. */
function relative(values: Float64Array): { map: Float64Array; top: number; times: number } {
  const top = values.slice().sort()[Math.floor(0.99 * values.length)]!;
  if (top === 0) return { map: new Float64Array(values.length), top, times: 0 };
  return { map: values.map((value) => Math.min(1, value / top)), top, times: top / mean(values) };
}

const between = (value: number, nothing: number, clear: number): number =>
  clamped((value - nothing) / (clear - nothing), 0, 1);

/**
 * By what is in focus, as a map of its own and as what is left of the interest of what is not, where a picture has one place
 * that is clearly more in focus than the rest of it.
 */
function inFocus(image: YuvImage, area: Box, grid: Size): Saliency & { weights: Float64Array } {
  const { map, times } = relative(focusMap(image, CELL, area, grid));
  const most = MOST_FOR_FOCUS * between(times, ALL_SHARP, ONE_SHARP);
  const weights = map.map((value) => 1 - most + most * Math.sqrt(value));
  return { map, trust: between(times, ONE_SHARP, ALONE_SHARP), weights };
}

/**
 * By how far from the border cells are. How large a step is that stays within a ground is known roughly only, and one
 * tolerance joins a thing with what stands beside it where another takes it apart; things come out at all of them.
 */
function closedOff(cells: LabCells, free: number): Saliency {
  const steps = stepsOf(cells);
  const distances = TOLERANCES.map((times) => relative(geodesicDistances(cells, steps, times * free)));
  const sums = Float64Array.from(distances[0]!.map, (_, cell) =>
    distances.reduce((sum, { map }) => sum + map[cell]!, 0),
  );
  return { map: relative(sums).map, trust: between(distances[0]!.top / free, NOTHING, CLEAR) };
}

/** By how rare their colours are: among leaves, or rocks, everything is closed off from the border alike. */
function rarelyColoured(cells: LabCells): Saliency {
  const { map, top, times } = relative(rareColours(cells));
  return { map, trust: top < LEAST_RARITY ? 0 : between(times, ALIKE, RARE) };
}

/** @param weights of the cells, 0 to 1 */
function thingsIn({ map, trust }: Saliency, weights: Float64Array, cells: LabCells, free: number): Thing[] {
  if (trust === 0) return [];
  const saliency = new Float64Array(map.length);
  for (let y = 0, i = 0; y < cells.height; y++) {
    const down = (2 * y) / cells.height - 1;
    for (let x = 0; x < cells.width; x++, i++) {
      const across = (2 * x) / cells.width - 1;
      saliency[i] = map[i]! * weights[i]! * Math.exp(-(across * across + down * down) / (MIDDLE * MIDDLE));
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
 * The things that stand out in a picture, the one with most first; none if it is even. Their score tells how clear they
 * are: how far the furthest is from the border, in steps that are usual in this picture; or, where nothing is closed off
 * from the border, how rare a colour is that is found in one place, or how much more in focus one place is.
 *
 * @param area the part of the picture that is not bars, its corner at even pixels
 * @returns boxes in pixels of the picture
 */
export function salientThings(image: YuvImage, area = wholeOf(image)): Detection[] {
  const cells = labCells(image, CELL, area);
  if (cells.width < 3 || cells.height < 3) return [];
  // Steps up to the usual one cost nothing.
  const free = usualStep(cells);
  const focus = inFocus(image, area, cells);
  let things: Thing[] = [];
  for (const saliencyOf of [() => closedOff(cells, free), () => rarelyColoured(cells), () => focus]) {
    const found = thingsIn(saliencyOf(), focus.weights, cells, free);
    if ((found[0]?.trust ?? 0) > (things[0]?.trust ?? 0)) things = found;
    if (things.length > 0 && things[0]!.trust >= ENOUGH) break;
  }
  return things.map(({ box, mass, trust }) => ({
    kind: "salient",
    box: moveBox(scaleBox(box, CELL), area),
    score: trust * mass ** 0.25,
  }));
}
