import { clamped } from "../numbers/clamped";
import { type FrameFeatures, LUMA_GRID } from "./frame-features";
import { ShiftedPlanes } from "../kernel/shifted-planes";
import { LumaPlane, type Region } from "./luma-plane";

const { columns: COLUMNS, rows: ROWS } = LUMA_GRID;
const BLOCK = { width: 8, height: 9 };
/** Search range of the whole picture, in samples; a sample is a sixty-fourth of the picture's width. */
const REACH = { x: 16, y: 6 };
/** Search range of a block around the shift of the whole picture. */
const STRAY = 3;
/** Standard deviation (0 to 255) below which structure counts as noise. */
const NOISE = 1.2;
/** Cost per sample of shift, in correlation: of equally good shifts the smaller one wins. */
const SHIFT_COST = 0.004;
/** A tenth of the blocks. */
const WORST_BLOCKS = 3;

/** How much of a picture is found in another. */
export interface PictureMatch {
  /** Share of the later picture that is not in the earlier one, 0 to 1, weighted by structure. */
  unexplained: number;
  /** Share of the blocks that moved with the whole picture, well matched. */
  unchanged: number;
  /** `unexplained` for the worst tenth of the picture: what jumps in a picture that stays. */
  worst: number;
}

/** Samples at half the resolution are quarters. */
const QUARTERS = 4;

/** Samples as whole numbers, scaled by a factor. */
function wholeNumbers({ samples }: LumaPlane, times: number): Int16Array {
  const out = new Int16Array(samples.length);
  for (let i = 0; i < out.length; i++) out[i] = times * samples[i]!;
  return out;
}

/** Two pictures, of which the earlier one is shifted. */
interface Pair {
  a: LumaPlane;
  b: LumaPlane;
  planes: ShiftedPlanes;
}

const pairOf = (a: LumaPlane, b: LumaPlane, times: number): Pair => ({
  a,
  b,
  planes: new ShiftedPlanes(wholeNumbers(a, times), wholeNumbers(b, times), a.columns, a.rows),
});

/**
 * Correlation coefficient of a region of `b` with the region of `a` at an offset of (dx, dy).
 * @param products sum of the products of both
 */
function correlation(
  { a, b }: Pair,
  { x, y, width, height }: Region,
  dx: number,
  dy: number,
  products: number,
): number {
  const count = width * height;
  const meanA = a.sum(x + dx, y + dy, width, height) / count;
  const varianceA = a.squares(x + dx, y + dy, width, height) / count - meanA * meanA;
  const meanB = b.sum(x, y, width, height) / count;
  const varianceB = b.squares(x, y, width, height) / count - meanB * meanB;
  // The variance of noise keeps two empty regions from matching, or failing to, by chance.
  const power = Math.sqrt(Math.max(0, varianceA) * Math.max(0, varianceB)) + NOISE * NOISE;
  return (products / count - meanA * meanB) / power;
}

/** The shift of the whole picture from `b` to `a` with the highest correlation, found at half the resolution. */
function globalShift(a: LumaPlane, b: LumaPlane): { dx: number; dy: number } {
  const pair = pairOf(a.halved(), b.halved(), QUARTERS);
  const { columns, rows } = pair.a;
  const whole = { x: 0, y: 0, width: columns, height: rows };
  const [far, high] = [REACH.x / 2, REACH.y / 2];
  const products = pair.planes.products(whole, { leastX: -far, mostX: far, leastY: -high, mostY: high });
  let best = { dx: 0, dy: 0 };
  let bestValue = -Infinity;
  for (let dy = -high, at = 0; dy <= high; dy++) {
    for (let dx = -far; dx <= far; dx++, at++) {
      const shared = {
        x: Math.max(0, -dx),
        y: Math.max(0, -dy),
        width: columns - Math.abs(dx),
        height: rows - Math.abs(dy),
      };
      const like = correlation(pair, shared, dx, dy, products[at]! / (QUARTERS * QUARTERS));
      const value = like - 2 * SHIFT_COST * (Math.abs(dx) + Math.abs(dy));
      if (value <= bestValue) continue;
      bestValue = value;
      best = { dx: 2 * dx, dy: 2 * dy };
    }
  }
  return best;
}

/** Brightness of a flat region on the scale of its whole picture. */
function level(plane: LumaPlane, x: number, y: number): number {
  const { mean } = plane.statistics(x, y, BLOCK.width, BLOCK.height);
  return (mean - plane.whole.mean) / (plane.whole.deviation + NOISE);
}

/**
 * Mismatch of the block of `b` at (x, y) in `a`, 0 to 1, and its deviation from the global shift; null if it would lie
 * outside `a`.
 */
function matchBlock(
  pair: Pair,
  x: number,
  y: number,
  shift: { dx: number; dy: number },
): { mismatch: number; stray: number; weight: number } | null {
  const { a, b } = pair;
  const region = { x, y, ...BLOCK };
  const { deviation } = b.statistics(x, y, BLOCK.width, BLOCK.height);
  const flat = deviation < 2 * NOISE;
  const own = flat ? level(b, x, y) : 0;
  // Only where the earlier picture contains the whole block.
  const shifts = {
    leastX: Math.max(-x, shift.dx - STRAY),
    mostX: Math.min(COLUMNS - BLOCK.width - x, shift.dx + STRAY),
    leastY: Math.max(-y, shift.dy - STRAY),
    mostY: Math.min(ROWS - BLOCK.height - y, shift.dy + STRAY),
  };
  if (shifts.leastX > shifts.mostX || shifts.leastY > shifts.mostY) return null;
  const products = flat ? null : pair.planes.products(region, shifts);
  let best = Infinity;
  let stray = 0;
  for (let dy = shifts.leastY, at = 0; dy <= shifts.mostY; dy++) {
    for (let dx = shifts.leastX; dx <= shifts.mostX; dx++, at++) {
      // Flat blocks have no structure to compare, only their brightness.
      const mismatch = products
        ? (0.9 - correlation(pair, region, dx, dy, products[at]!)) / 0.5
        : Math.abs(level(a, x + dx, y + dy) - own) - 0.3;
      if (mismatch >= best) continue;
      best = mismatch;
      stray = Math.max(Math.abs(dx - shift.dx), Math.abs(dy - shift.dy));
    }
  }
  const weight = 0.25 + 0.75 * Math.min(1, deviation / (6 * NOISE));
  return { mismatch: clamped(best, 0, 1), stray, weight };
}

/**
 * Searches for every block of the later picture in the earlier one, around the shift of the whole picture (block matching
 * by normalised correlation, so that a change of light neither hides nor adds anything).
 */
function matchPictures(earlier: FrameFeatures, later: FrameFeatures): PictureMatch {
  const a = new LumaPlane(earlier.luma, COLUMNS, ROWS);
  const b = new LumaPlane(later.luma, COLUMNS, ROWS);
  const shift = globalShift(a, b);
  const pair = pairOf(a, b, 1);
  const weighted: number[] = [];
  let unexplained = 0;
  let weights = 0;
  let unchanged = 0;
  for (let y = 0; y < ROWS; y += BLOCK.height) {
    for (let x = 0; x < COLUMNS; x += BLOCK.width) {
      const found = matchBlock(pair, x, y, shift);
      // A block that was outside the earlier picture is no evidence.
      if (!found) continue;
      const { mismatch, stray, weight } = found;
      unexplained += weight * mismatch;
      weights += weight;
      weighted.push(weight * mismatch);
      if (mismatch < 0.2 && stray <= 1) unchanged++;
    }
  }
  const blocks = weighted.length;
  if (blocks === 0) return { unexplained: 1, unchanged: 0, worst: 1 };
  const worst = weighted.sort((p, q) => q - p).slice(0, WORST_BLOCKS);
  return {
    unexplained: unexplained / weights,
    unchanged: unchanged / blocks,
    worst: worst.reduce((sum, value) => sum + value, 0) / worst.length,
  };
}

/** Matches pictures of a film by frame, each pair once. Frames beyond the film's ends are its ends. */
export class PictureMatcher {
  private readonly known = new Map<number, PictureMatch>();

  constructor(private readonly features: readonly FrameFeatures[]) {}

  match(earlier: number, later: number): PictureMatch {
    const last = this.features.length - 1;
    const a = clamped(earlier, 0, last);
    const b = clamped(later, 0, last);
    const key = a * this.features.length + b;
    let match = this.known.get(key);
    if (!match) {
      match = matchPictures(this.features[a]!, this.features[b]!);
      this.known.set(key, match);
    }
    return match;
  }
}
