/**
 * A thing that is held: what stands out then reaches from the thing along an arm, which leads out of the picture. The arm
 * is told by where it goes on beyond what stands out, and the thing by the colours at the other end.
 */
import { mean } from "../../mean";
import { apart, type LabCells } from "./lab-cells";

/** What stands out is an arm and more if it is so many times as long as wide (by standard deviations along its axes). */
const LEAST_ELONGATION = 2.2;
/** The middle of a cell is so far from its side; the square of a cell's own deviation. */
const OWN_VARIANCE = 1 / 12;
/** Cells from an end within which it is measured how wide it is. */
const END = 4;
/** Cells beside an end in which there is no arm any more. */
const BESIDE = 2;
/** Cells on the way out in which an arm differs from both sides, by so many steps that are usual in the picture. */
const GOES_ON = 0.6;
const OTHER_STEPS = 3;
/** An end that is no further from the border leads out anyway. */
const AT_BORDER = 2;
/** A thing at the end is at least this share of the length, and at most that one. */
const SHARE = { least: 0.12, most: 0.75 };
/** By how much the colours of a thing and of its arm differ at least, on scales of 255. */
const LEAST_DIFFERENCE = 15;

/** The longer axis of a group of cells: its middle, its direction, and how much longer it is than the other. */
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

/** Whether what is at one end of a group goes on to the picture's border, and differs from what is on both sides. */
function leadsOut(
  grid: LabCells,
  { x, y, ux, uy }: Axis,
  end: { along: number; across: readonly number[]; outwards: 1 | -1 },
  free: number,
): boolean {
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
  return steps <= AT_BORDER || differing >= GOES_ON * steps;
}

/**
 * How much of a row of colours, from its beginning, is of one thing and the rest of another: where the variance between
 * both parts is largest (Otsu, 1979). Zero if they hardly differ.
 *
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
    const difference = Math.hypot(...part.map((sum, i) => sum / count - (all[i]! - sum) / rest));
    const between = count * rest * difference ** 2;
    if (difference >= LEAST_DIFFERENCE && between > best.between) best = { between, length };
  }
  return best.length;
}

/**
 * The cells of a group that are of a thing at its end, where the other end leads out of the picture; all of them where
 * nothing tells that they are a thing and what holds it.
 *
 * @param cells that stand out, connected
 * @param free steps between neighbouring cells that are usual in the picture
 */
export function heldThing(grid: LabCells, cells: readonly number[], free: number): readonly number[] {
  const held = withoutLastPart(grid, cells, free);
  // Behind a sleeve there is a hand.
  return held.length < cells.length ? heldThing(grid, held, free) : cells;
}

/** What is left when the part of an arm is taken away that is of one colour and leads out of the picture. */
function withoutLastPart(grid: LabCells, cells: readonly number[], free: number): readonly number[] {
  const axis = axisOf(cells, grid.width);
  if (axis.elongation < LEAST_ELONGATION) return cells;
  const places = cells.map((cell) => {
    const [x, y] = [(cell % grid.width) - axis.x, Math.floor(cell / grid.width) - axis.y];
    return { cell, along: x * axis.ux + y * axis.uy, across: y * axis.ux - x * axis.uy };
  });
  const first = Math.min(...places.map(({ along }) => along));
  const last = Math.max(...places.map(({ along }) => along));
  const leads = (along: number, outwards: 1 | -1) => {
    const near = places.filter((place) => Math.abs(place.along - along) <= END);
    return leadsOut(grid, axis, { along, across: near.map(({ across }) => across), outwards }, free);
  };
  const outwards = leads(first, -1);
  // What leads out on both sides is a branch, or a horizon.
  if (outwards === leads(last, 1)) return cells;
  const slices = Array.from({ length: Math.ceil(last - first + 1) }, (): number[] => []);
  for (const { cell, along } of places) slices[Math.floor(outwards ? last - along : along - first)]!.push(cell);
  const length = colourBorder(grid, slices);
  return length === 0 ? cells : slices.slice(0, length).flat();
}
