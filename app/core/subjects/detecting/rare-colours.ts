/**
 * Colours that a picture has in one place only and that differ from all others: uniqueness and distribution of colours
 * after Perazzi, Krähenbühl, Pritch and Hornung, "Saliency filters: contrast based filtering for salient region detection"
 * (2012), between coarse bins of colour instead of segments.
 */
import type { LabCells } from "./lab-cells";

/** Side of the bins of colour, on scales of 255. */
const BIN = 24;
/** Standard deviation of the colour difference within which colours count as the same for their distribution. */
const SAME_COLOUR = 16;
/** Exponent of a colour's rarity lost at the widest possible distribution. */
const SPREAD_COST = 2;

/** The cells of one bin: their mean colour, and the mean and variance of their places. */
interface Colour {
  cells: number[];
  lightness: number;
  a: number;
  b: number;
  x: number;
  y: number;
  variance: number;
}

function coloursOf({ width, lightness, a, b }: LabCells): Colour[] {
  const bins = new Map<string, number[]>();
  lightness.forEach((light, cell) => {
    const key = [light, a[cell]!, b[cell]!].map((value) => Math.round(value / BIN)).join();
    const cells = bins.get(key);
    if (cells) cells.push(cell);
    else bins.set(key, [cell]);
  });
  return [...bins.values()].map((cells) => {
    const meanOf = (valueOf: (cell: number) => number) =>
      cells.reduce((sum, cell) => sum + valueOf(cell), 0) / cells.length;
    const [x, y] = [meanOf((cell) => cell % width), meanOf((cell) => Math.floor(cell / width))];
    return {
      cells,
      x,
      y,
      lightness: meanOf((cell) => lightness[cell]!),
      a: meanOf((cell) => a[cell]!),
      b: meanOf((cell) => b[cell]!),
      variance: meanOf((cell) => ((cell % width) - x) ** 2 + (Math.floor(cell / width) - y) ** 2),
    };
  });
}

const squaredDistance = (one: Colour, other: Colour): number =>
  (one.lightness - other.lightness) ** 2 + (one.a - other.a) ** 2 + (one.b - other.b) ** 2;

/** Weights of each colour as the same: by number of cells, and likeness. */
const likeness = (colour: Colour, colours: readonly Colour[]): number[] =>
  colours.map((other) => other.cells.length * Math.exp(-squaredDistance(colour, other) / (2 * SAME_COLOUR ** 2)));

/**
 * A colour's difference from all others, reduced by its spread.
 * @param weights from `likeness`
 */
function rarityOf(
  colour: Colour,
  colours: readonly Colour[],
  weights: readonly number[],
  cells: number,
  evenSpread: number,
): number {
  let unlike = 0;
  let [weight, x, y] = [0, 0, 0];
  colours.forEach((other, i) => {
    unlike += (other.cells.length / cells) * Math.sqrt(squaredDistance(colour, other));
    weight += weights[i]!;
    x += weights[i]! * other.x;
    y += weights[i]! * other.y;
  });
  const spread = colours.reduce((sum, other, i) => {
    const [dx, dy] = [other.x - x / weight, other.y - y / weight];
    return sum + weights[i]! * (other.variance + dx * dx + dy * dy);
  }, 0);
  return unlike * Math.exp((-SPREAD_COST * spread) / (weight * evenSpread));
}

/**
 * Rarity of each cell's colour in its picture.
 * @returns a value per cell, in differences of colour on scales of 255
 */
export function rareColours(grid: LabCells): Float64Array {
  const colours = coloursOf(grid);
  const out = new Float64Array(grid.width * grid.height);
  const evenSpread = (grid.width ** 2 + grid.height ** 2) / 12;
  const weights = colours.map((colour) => likeness(colour, colours));
  const rarities = colours.map((colour, i) => rarityOf(colour, colours, weights[i]!, out.length, evenSpread));
  colours.forEach(({ cells }, i) => {
    // Similar colours on both sides of a bin's border are equally rare.
    let [sum, weight] = [0, 0];
    weights[i]!.forEach((like, j) => {
      sum += like * rarities[j]!;
      weight += like;
    });
    for (const cell of cells) out[cell] = sum / weight;
  });
  return out;
}
