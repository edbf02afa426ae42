/**
 * A held thing: what is salient then consists of the thing and an arm, which leads out of the picture. The arm is found by
 * its continuation beyond what is salient, and the thing by the colours at the other end.
 */
import { boxOfCells } from "../../image/connected-cells";
import { type Box, moveBox } from "../../geometry/box";
import { mean } from "../../numbers/mean";
import { apart, type LabCells, usualStep } from "./lab-cells";

/** Elongation (ratio of standard deviations along its axes) above which something salient is an arm and more. */
const LEAST_ELONGATION = 2.2;
/** Half the size of a cell; variance of a cell by itself. */
const OWN_VARIANCE = 1 / 12;
/** Cells from an end in which its width is measured. */
const END = 4;
/** Cells beside an end that are no longer of the arm. */
const BESIDE = 2;
/** Length in cells of an arm's continuation, and its difference from both sides, in steps usual in the picture. */
const GOES_ON = 0.6;
const OTHER_STEPS = 3;
/** Distance from the border, in cells, at which an end leads out anyway. */
const AT_BORDER = 2;
/** Smallest and largest share of the length for a thing at the end. */
const SHARE = { least: 0.12, most: 0.75 };
/** … and its least ratio of length to width: anything thinner is a slice of something. */
const LEAST_LENGTH = 0.6;
/** Elongation above which motion is an arm and more … */
const LEAST_ELONGATION_OF_ARM = 2.5;
/**
 * … and distance from the border within which it begins, in widths of the picture: at the border itself an arm may move too
 * little to be seen.
 */
const NEAR_BORDER = 0.08;
/** How far an arm reaches into the picture at least, in heights of the picture. */
const LEAST_REACH = 0.25;
/** Fewest moving cells of a thing; fewer are a corner of one. */
const LEAST_CELLS = 12;
/** Least difference between the colours of a thing and its arm, on scales of 255. */
const LEAST_DIFFERENCE = 15;

/** The longer axis of a group of cells: its centre, its direction, and the elongation. */
interface Axis {
  x: number;
  y: number;
  ux: number;
  uy: number;
  elongation: number;
}

function axisOf(cells: readonly number[], width: number): Axis {
  const xs = cells.map((cell) => cell % width);
  const ys = cells.map((cell) => Math.floor(cell / width));
  const [x, y] = [mean(xs), mean(ys)];
  const xx = mean(xs.map((value) => (value - x) ** 2));
  const yy = mean(ys.map((value) => (value - y) ** 2));
  const xy = mean(xs.map((value, i) => (value - x) * (ys[i]! - y)));
  const [middle, reach] = [(xx + yy) / 2, Math.hypot((xx - yy) / 2, xy)];
  const angle = Math.atan2(2 * xy, xx - yy) / 2;
  const elongation = Math.sqrt((middle + reach + OWN_VARIANCE) / (Math.max(0, middle - reach) + OWN_VARIANCE));
  return { x, y, ux: Math.cos(angle), uy: Math.sin(angle), elongation };
}

/** A direction along an axis. */
type Outwards = 1 | -1;

/** A cell, with its coordinates along and across an axis. */
interface Place {
  cell: number;
  along: number;
  across: number;
}

function placeOn(axis: Axis, cell: number, width: number): Omit<Place, "cell"> {
  const [x, y] = [(cell % width) - axis.x, Math.floor(cell / width) - axis.y];
  return { along: x * axis.ux + y * axis.uy, across: y * axis.ux - x * axis.uy };
}

/**
 * Whether one end of a group is at the picture's border, or the area beyond it differs from both sides all the way there.
 */
function leadsOut(
  grid: LabCells,
  { x, y, ux, uy }: Axis,
  end: { along: number; across: readonly number[]; outwards: Outwards },
  free: number,
): { atBorder: boolean; goesOn: boolean } {
  const { width, height } = grid;
  const cellAt = (along: number, across: number): number | null => {
    const column = Math.round(x + along * ux - across * uy);
    const row = Math.round(y + along * uy + across * ux);
    return column >= 0 && row >= 0 && column < width && row < height ? row * width + column : null;
  };
  const middle = mean(end.across);
  const half = (Math.max(...end.across) - Math.min(...end.across)) / 2 + BESIDE;
  let [steps, differing] = [0, 0];
  for (let along = end.along + end.outwards; ; along += end.outwards) {
    const here = cellAt(along, middle);
    if (here === null) break;
    steps++;
    const sides = [-half, half].flatMap((aside) => cellAt(along, middle + aside) ?? []);
    if (sides.length > 0 && sides.every((side) => apart(grid, side, here) > OTHER_STEPS * free)) differing++;
  }
  return { atBorder: steps <= AT_BORDER, goesOn: differing >= GOES_ON * steps };
}

/**
 * The share of a row of colours, from its start, that belongs to one thing, with the rest to another: where the variance
 * between both parts is largest (Otsu, 1979). Zero if they hardly differ.
 * @param slices the cells in each slice of a length
 */
function colourBorder(grid: LabCells, slices: readonly (readonly number[])[]): number {
  const planes = [grid.lightness, grid.a, grid.b];
  const sums = slices.map((cells) => planes.map((plane) => cells.reduce((sum, cell) => sum + plane[cell]!, 0)));
  const counts = slices.map((cells) => cells.length);
  const add = (a: readonly number[], b: readonly number[]) => a.map((value, i) => value + b[i]!);
  const [all, total] = [sums.reduce(add), counts.reduce((sum, count) => sum + count)];
  let [part, count] = [planes.map(() => 0), 0];
  let best = { between: 0, length: 0 };
  for (let length = 1; length <= SHARE.most * slices.length; length++) {
    part = add(part, sums[length - 1]!);
    count += counts[length - 1]!;
    const rest = total - count;
    if (length < SHARE.least * slices.length || count === 0 || rest === 0) continue;
    if (length < LEAST_LENGTH * (count / length)) continue;
    const difference = Math.hypot(...part.map((sum, i) => sum / count - (all[i]! - sum) / rest));
    const between = count * rest * difference ** 2;
    if (difference >= LEAST_DIFFERENCE && between > best.between) best = { between, length };
  }
  return best.length;
}

/** The end of its axis at which a group leads out of the picture; null if neither does, or both do. */
function wayOut(grid: LabCells, axis: Axis, places: readonly Place[], free: number): Outwards | null {
  const ends = ([-1, 1] as const).map((outwards) => {
    const along = places.reduce((most, place) => Math.max(most, outwards * place.along), -Infinity) * outwards;
    const near = places.filter((place) => Math.abs(place.along - along) <= END);
    return leadsOut(grid, axis, { along, across: near.map(({ across }) => across), outwards }, free);
  });
  const [back, on] = [ends[0]!, ends[1]!];
  // What leads out on both sides is a branch, or a horizon.
  if (back.atBorder && on.atBorder) return null;
  if (back.atBorder || on.atBorder) return back.atBorder ? -1 : 1;
  return back.goesOn === on.goesOn ? null : back.goesOn ? -1 : 1;
}

/** The side of a part of a group on which the rest is. */
function sideOfRest(axis: Axis, group: readonly number[], part: readonly number[], width: number): Outwards {
  const along = (cells: readonly number[]) => mean(cells.map((cell) => placeOn(axis, cell, width).along));
  return along(group) < along(part) ? -1 : 1;
}

/** Cells in slices across their axis, from the inner end outwards. */
function slicesOf(places: readonly Place[], outwards: Outwards): number[][] {
  const distances = places.map(({ along }) => outwards * along);
  const [inner, outer] = [Math.min(...distances), Math.max(...distances)];
  const slices = Array.from({ length: Math.ceil(outer - inner + 1) }, (): number[] => []);
  places.forEach(({ cell }, i) => slices[Math.floor(distances[i]! - inner)]!.push(cell));
  return slices;
}

/**
 * The cells of a group that belong to a thing at its end, where the other end leads out of the picture; all of them where
 * nothing separates a thing from what holds it.
 * @param cells that are salient, or move; near one another
 * @param free steps between neighbouring cells that are usual in the picture
 */
export function heldThing(grid: LabCells, cells: readonly number[], free: number): readonly number[] {
  let held = cells;
  for (;;) {
    const axis = axisOf(held, grid.width);
    if (axis.elongation < LEAST_ELONGATION) return held;
    const places = held.map((cell) => ({ cell, ...placeOn(axis, cell, grid.width) }));
    // Beyond a sleeve there is a hand: the whole arm is on the side on which it leads out.
    const outwards = held === cells ? wayOut(grid, axis, places, free) : sideOfRest(axis, cells, held, grid.width);
    if (outwards === null) return held;
    const slices = slicesOf(places, outwards);
    const length = colourBorder(grid, slices);
    if (length === 0) return held;
    held = slices.slice(0, length).flat();
  }
}

/**
 * Cells with those between them and across their longer axis: the inside of a moving thing may be too even to show motion.
 */
function filled(grid: LabCells, cells: readonly number[]): number[] {
  const axis = axisOf(cells, grid.width);
  const reach = new Map<number, { least: number; most: number }>();
  for (const { along, across } of cells.map((cell) => placeOn(axis, cell, grid.width))) {
    const known = reach.get(Math.floor(along)) ?? { least: across, most: across };
    reach.set(Math.floor(along), { least: Math.min(known.least, across), most: Math.max(known.most, across) });
  }
  const box = boxOfCells(cells, grid.width);
  const inside: number[] = [];
  for (let y = box.y; y < box.y + box.height; y++) {
    for (let x = box.x; x < box.x + box.width; x++) {
      const cell = y * grid.width + x;
      const { along, across } = placeOn(axis, cell, grid.width);
      const here = reach.get(Math.floor(along));
      if (here && across >= here.least && across <= here.most) inside.push(cell);
    }
  }
  return inside;
}

/**
 * Whether motion may be an arm and what it holds: long and narrow, and coming from near the picture's border.
 * @param columns cells per row of the grid
 * @param picture the part of the grid without bars, in cells
 */
export function mayBeArm(cells: readonly number[], columns: number, picture: Box): boolean {
  const { x, y, width, height } = moveBox(boxOfCells(cells, columns), { x: -picture.x, y: -picture.y });
  return (
    Math.hypot(width, height) >= LEAST_REACH * picture.height &&
    Math.min(x, y, picture.width - x - width, picture.height - y - height) <= NEAR_BORDER * picture.width &&
    axisOf(cells, columns).elongation >= LEAST_ELONGATION_OF_ARM
  );
}

/**
 * The thing at the end of a moving group, whose other end is an arm that leads out of the picture.
 * @param cells that move, near one another
 * @returns a box in cells; null where nothing indicates a held thing
 */
export function heldInMotion(grid: LabCells, cells: readonly number[]): Box | null {
  if (cells.length === 0) return null;
  const all = filled(grid, cells);
  const held = heldThing(grid, all, usualStep(grid));
  return held.length < all.length && held.length >= LEAST_CELLS ? boxOfCells(held, grid.width) : null;
}
