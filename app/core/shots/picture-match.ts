import { type FrameFeatures, LUMA_GRID } from "./frame-features";

const { columns: COLUMNS, rows: ROWS } = LUMA_GRID;
const BLOCK = { width: 8, height: 9 };
/** How far the whole picture is searched for, in samples; a sample is a sixty-fourth of the picture's width. */
const REACH = { x: 16, y: 6 };
/** How far a block may stray from where the whole picture went. */
const STRAY = 3;
/** Structure below this standard deviation (0 to 255) is taken for noise. */
const NOISE = 1.2;

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

/** Mean and standard deviation of a rectangle of luma. */
function statistics(luma: Uint8Array, x: number, y: number, width: number, height: number): { mean: number; deviation: number } {
  let sum = 0;
  let squares = 0;
  for (let row = y; row < y + height; row++) {
    for (let i = row * COLUMNS + x; i < row * COLUMNS + x + width; i++) {
      sum += luma[i]!;
      squares += luma[i]! * luma[i]!;
    }
  }
  const mean = sum / (width * height);
  return { mean, deviation: Math.sqrt(Math.max(0, squares / (width * height) - mean * mean)) };
}

/** Correlation coefficient of a rectangle of `b` with the rectangle of `a` that lies (dx, dy) further. */
function correlation(a: Uint8Array, b: Uint8Array, x: number, y: number, width: number, height: number, dx: number, dy: number, step = 1): number {
  let sumA = 0;
  let sumB = 0;
  let squaresA = 0;
  let squaresB = 0;
  let products = 0;
  let count = 0;
  for (let row = y; row < y + height; row += step) {
    const shifted = (row + dy) * COLUMNS + dx;
    for (let column = x; column < x + width; column += step) {
      const p = a[shifted + column]!;
      const q = b[row * COLUMNS + column]!;
      sumA += p;
      sumB += q;
      squaresA += p * p;
      squaresB += q * q;
      products += p * q;
      count++;
    }
  }
  const covariance = products - (sumA * sumB) / count;
  const variances = (squaresA - (sumA * sumA) / count) * (squaresB - (sumB * sumB) / count);
  // The noise's own variance keeps two empty rectangles from matching, or failing to, by chance.
  return covariance / (Math.sqrt(Math.max(0, variances)) + count * NOISE * NOISE);
}

/** The shift of the whole picture from `b` to `a` that correlates best, found on every second sample. */
function globalShift(a: Uint8Array, b: Uint8Array): { dx: number; dy: number } {
  let best = { dx: 0, dy: 0 };
  let bestValue = -Infinity;
  for (let dy = -REACH.y; dy <= REACH.y; dy += 2) {
    for (let dx = -REACH.x; dx <= REACH.x; dx += 2) {
      const x = Math.max(0, -dx);
      const y = Math.max(0, -dy);
      const value = correlation(a, b, x, y, COLUMNS - Math.abs(dx), ROWS - Math.abs(dy), dx, dy, 2);
      // Of equally good shifts the smaller one.
      const judged = value - 0.004 * (Math.abs(dx) + Math.abs(dy));
      if (judged <= bestValue) continue;
      bestValue = judged;
      best = { dx, dy };
    }
  }
  return best;
}

/** Flat blocks are compared by their lightness, on the scale of each whole picture. */
function flatMismatch(meanA: number, meanB: number, a: { mean: number; deviation: number }, b: { mean: number; deviation: number }): number {
  const levelA = (meanA - a.mean) / (a.deviation + NOISE);
  const levelB = (meanB - b.mean) / (b.deviation + NOISE);
  return Math.min(1, Math.max(0, Math.abs(levelA - levelB) - 0.3));
}

/**
 * Looks for every block of the later picture in the earlier one, around where the whole picture went (block
 * matching by normalised correlation, so that a change of light explains nothing away and adds nothing).
 */
function matchPictures(earlier: FrameFeatures, later: FrameFeatures): PictureMatch {
  const a = earlier.luma;
  const b = later.luma;
  const shift = globalShift(a, b);
  const wholeA = statistics(a, 0, 0, COLUMNS, ROWS);
  const wholeB = statistics(b, 0, 0, COLUMNS, ROWS);
  let unexplained = 0;
  let weights = 0;
  let kept = 0;
  const mismatches: number[] = [];
  for (let y = 0; y < ROWS; y += BLOCK.height) {
    for (let x = 0; x < COLUMNS; x += BLOCK.width) {
      const { mean, deviation } = statistics(b, x, y, BLOCK.width, BLOCK.height);
      let best = -1;
      let bestStray = 0;
      let flat = 1;
      for (let dy = shift.dy - STRAY; dy <= shift.dy + STRAY; dy++) {
        if (y + dy < 0 || y + dy + BLOCK.height > ROWS) continue;
        for (let dx = shift.dx - STRAY; dx <= shift.dx + STRAY; dx++) {
          if (x + dx < 0 || x + dx + BLOCK.width > COLUMNS) continue;
          if (deviation < 2 * NOISE) {
            const there = statistics(a, x + dx, y + dy, BLOCK.width, BLOCK.height).mean;
            flat = Math.min(flat, flatMismatch(there, mean, wholeA, wholeB));
          }
          const value = correlation(a, b, x, y, BLOCK.width, BLOCK.height, dx, dy);
          if (value <= best) continue;
          best = value;
          bestStray = Math.max(Math.abs(dx - shift.dx), Math.abs(dy - shift.dy));
        }
      }
      // A block that was outside the earlier picture says nothing.
      if (best === -1) continue;
      const textured = Math.min(1, deviation / (6 * NOISE));
      const structure = Math.min(1, Math.max(0, (0.9 - best) / 0.5));
      const weight = 0.25 + 0.75 * textured;
      const mismatch = deviation < 2 * NOISE ? flat : structure;
      unexplained += weight * mismatch;
      weights += weight;
      mismatches.push(weight * mismatch);
      if (mismatch < 0.2 && bestStray <= 1) kept++;
    }
  }
  const blocks = mismatches.length;
  if (blocks === 0) return { unexplained: 1, kept: 0, worst: 1 };
  const worst = mismatches.sort((p, q) => q - p).slice(0, WORST_BLOCKS);
  return { unexplained: unexplained / weights, kept: kept / blocks, worst: worst.reduce((sum, value) => sum + value, 0) / worst.length };
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
