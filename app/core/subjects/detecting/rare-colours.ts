/**
 * Colours that a picture has in one place only and that are unlike all others: the uniqueness and the distribution of
 * colours of Perazzi, Krähenbühl, Pritch and Hornung, "Saliency filters: contrast based filtering for salient region
 * detection" (2012), between the colours of a picture in coarse steps instead of between its segments.
 */
import type { LabCells } from "./lab-cells";

/** Side of the bins in which colours count as one, on scales of 255. */
const BIN = 24;
/** How far apart colours are, as a standard deviation, that are the same for where they are found. */
const SAME_COLOUR = 16;
/** What is left of a colour's rarity, as a power of e, that is spread over the picture as evenly as can be. */
const SPREAD_COST = 2;

/** The cells of one bin: their mean colour, and the mean and the variance of where they are. */
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

/** How much of each colour counts as one of them: by how many cells have it, and how like it is. */
const likeness = (colour: Colour, colours: readonly Colour[]): number[] =>
  colours.map((other) => other.cells.length * Math.exp(-squaredDistance(colour, other) / (2 * SAME_COLOUR ** 2)));

/**
 * How unlike all others a colour is, less for how far it is spread.
 *
 * @param weights as `likeness` gives them
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
 * How rare the colour of each cell is in its picture.
 *
 * @returns a value for each cell, in differences of colour on scales of 255
 */
export function rareColours(grid: LabCells): Float64Array {
  const colours = coloursOf(grid);
  const out = new Float64Array(grid.width * grid.height);
  const evenSpread = (grid.width ** 2 + grid.height ** 2) / 12;
  const weights = colours.map((colour) => likeness(colour, colours));
  const rarities = colours.map((colour, i) => rarityOf(colour, colours, weights[i]!, out.length, evenSpread));
  colours.forEach(({ cells }, i) => {
    // Bins have borders; like colours on both sides of one are as rare.
    let [sum, weight] = [0, 0];
    weights[i]!.forEach((like, j) => {
      sum += like * rarities[j]!;
      weight += like;
    });
    for (const cell of cells) out[cell] = sum / weight;
  });
  return out;
}
