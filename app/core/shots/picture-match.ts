import { type FrameFeatures, LUMA_GRID } from "./frame-features";
import { LumaPlane, type Region } from "./luma-plane";

const { columns: COLUMNS, rows: ROWS } = LUMA_GRID;
const BLOCK = { width: 8, height: 9 };
/** How far the whole picture is searched for, in samples; a sample is a sixty-fourth of the picture's width. */
const REACH = { x: 16, y: 6 };
/** How far a block may stray from where the whole picture went. */
const STRAY = 3;
/** Structure below this standard deviation (0 to 255) is taken for noise. */
const NOISE = 1.2;
/** What a sample of shift costs, in correlation: of equally good shifts the smaller one. */
const SHIFT_COST = 0.004;
/** A tenth of the blocks. */
const WORST_BLOCKS = 3;

/** How much of a picture is found again in another. */
export interface PictureMatch {
  /** Share of the later picture that is not in the earlier one, 0 to 1, weighted by structure. */
  unexplained: number;
  /** Share of the blocks that stay where the whole picture is, well matched. */
  kept: number;
  /** The same as `unexplained` for the worst tenth of the picture: what jumps in a picture that stays. */
  worst: number;
}

/** Correlation coefficient of a region of `b` with the region of `a` that lies (dx, dy) further. */
function correlation(a: LumaPlane, b: LumaPlane, region: Region, dx: number, dy: number): number {
  const { x, y, width, height } = region;
  const p = a.samples;
  const q = b.samples;
  let products = 0;
  for (let row = y; row < y + height; row++) {
    const end = row * b.columns + x + width;
    let from = (row + dy) * a.columns + x + dx;
    for (let i = end - width; i < end; i++, from++) products += p[from]! * q[i]!;
  }
  const count = width * height;
  const meanA = a.sum(x + dx, y + dy, width, height) / count;
  const varianceA = a.squares(x + dx, y + dy, width, height) / count - meanA * meanA;
  const meanB = b.sum(x, y, width, height) / count;
  const varianceB = b.squares(x, y, width, height) / count - meanB * meanB;
  // The noise's own variance keeps two empty regions from matching, or failing to, by chance.
  const power = Math.sqrt(Math.max(0, varianceA) * Math.max(0, varianceB)) + NOISE * NOISE;
  return (products / count - meanA * meanB) / power;
}

/** The shift of the whole picture from `b` to `a` that correlates best, found at half the resolution. */
function globalShift(a: LumaPlane, b: LumaPlane): { dx: number; dy: number } {
  const [halfA, halfB] = [a.halved(), b.halved()];
  const { columns, rows } = halfA;
  let best = { dx: 0, dy: 0 };
  let bestValue = -Infinity;
  for (let dy = -REACH.y / 2; dy <= REACH.y / 2; dy++) {
    for (let dx = -REACH.x / 2; dx <= REACH.x / 2; dx++) {
      const shared = {
        x: Math.max(0, -dx),
        y: Math.max(0, -dy),
        width: columns - Math.abs(dx),
        height: rows - Math.abs(dy),
      };
      const value = correlation(halfA, halfB, shared, dx, dy) - 2 * SHIFT_COST * (Math.abs(dx) + Math.abs(dy));
      if (value <= bestValue) continue;
      bestValue = value;
      best = { dx: 2 * dx, dy: 2 * dy };
    }
  }
  return best;
}

/** Lightness of a flat region on the scale of its whole picture. */
function level(plane: LumaPlane, x: number, y: number): number {
  const { mean } = plane.statistics(x, y, BLOCK.width, BLOCK.height);
  return (mean - plane.whole.mean) / (plane.whole.deviation + NOISE);
}

/** How badly the block of `b` at (x, y) is found in `a`, 0 to 1, and how far it strayed; null if `a` ends before. */
function matchBlock(
  a: LumaPlane,
  b: LumaPlane,
  x: number,
  y: number,
  shift: { dx: number; dy: number },
): { mismatch: number; stray: number; weight: number } | null {
  const region = { x, y, ...BLOCK };
  const { deviation } = b.statistics(x, y, BLOCK.width, BLOCK.height);
  const flat = deviation < 2 * NOISE;
  const own = flat ? level(b, x, y) : 0;
  let best = Infinity;
  let stray = 0;
  for (let dy = shift.dy - STRAY; dy <= shift.dy + STRAY; dy++) {
    if (y + dy < 0 || y + dy + BLOCK.height > ROWS) continue;
    for (let dx = shift.dx - STRAY; dx <= shift.dx + STRAY; dx++) {
      if (x + dx < 0 || x + dx + BLOCK.width > COLUMNS) continue;
      // Flat blocks have no structure to compare, only their lightness.
      const mismatch = flat
        ? Math.abs(level(a, x + dx, y + dy) - own) - 0.3
        : (0.9 - correlation(a, b, region, dx, dy)) / 0.5;
      if (mismatch >= best) continue;
      best = mismatch;
      stray = Math.max(Math.abs(dx - shift.dx), Math.abs(dy - shift.dy));
    }
  }
  if (best === Infinity) return null;
  const weight = 0.25 + 0.75 * Math.min(1, deviation / (6 * NOISE));
  return { mismatch: Math.min(1, Math.max(0, best)), stray, weight };
}

/**
 * Looks for every block of the later picture in the earlier one, around where the whole picture went (block
 * matching by normalised correlation, so that a change of light explains nothing away and adds nothing).
 */
function matchPictures(earlier: FrameFeatures, later: FrameFeatures): PictureMatch {
  const a = new LumaPlane(earlier.luma, COLUMNS, ROWS);
  const b = new LumaPlane(later.luma, COLUMNS, ROWS);
  const shift = globalShift(a, b);
  const weighted: number[] = [];
  let unexplained = 0;
  let weights = 0;
  let kept = 0;
  for (let y = 0; y < ROWS; y += BLOCK.height) {
    for (let x = 0; x < COLUMNS; x += BLOCK.width) {
      const found = matchBlock(a, b, x, y, shift);
      // A block that was outside the earlier picture says nothing.
      if (!found) continue;
      const { mismatch, stray, weight } = found;
      unexplained += weight * mismatch;
      weights += weight;
      weighted.push(weight * mismatch);
      if (mismatch < 0.2 && stray <= 1) kept++;
    }
  }
  const blocks = weighted.length;
  if (blocks === 0) return { unexplained: 1, kept: 0, worst: 1 };
  const worst = weighted.sort((p, q) => q - p).slice(0, WORST_BLOCKS);
  return {
    unexplained: unexplained / weights,
    kept: kept / blocks,
    worst: worst.reduce((sum, value) => sum + value, 0) / worst.length,
  };
}

/** Matches pictures of a film by frame, each pair once. Frames beyond the film's ends are its ends. */
export class PictureMatcher {
  private readonly known = new Map<number, PictureMatch>();

  constructor(private readonly features: readonly FrameFeatures[]) {}

  match(earlier: number, later: number): PictureMatch {
    const last = this.features.length - 1;
    const a = Math.min(last, Math.max(0, earlier));
    const b = Math.min(last, Math.max(0, later));
    const key = a * this.features.length + b;
    let match = this.known.get(key);
    if (!match) {
      match = matchPictures(this.features[a]!, this.features[b]!);
      this.known.set(key, match);
    }
    return match;
  }
}
