import { KernelMemory, loops } from "../kernel/kernel";
import { FULL_CHROMA, FULL_LUMA, type YuvImage } from "../image/yuv-image";

/**
 * Features of a frame for finding shots: a colour histogram, the picture in small, and its colours at an even smaller size.
 * Under 3 kB per frame, so that an hour can be decided again without decoding.
 */
export interface FrameFeatures {
  /** 16 bins of luma, then 8 × 8 of chroma; each part sums to about 255. */
  histogram: Uint8Array;
  /** Luma, 64 × 36. */
  luma: Uint8Array;
  /** Blue and red chroma of each cell of a 16 × 9 grid, 128 for none. */
  chroma: Uint8Array;
}

export const LUMA_GRID = { columns: 64, rows: 36 };
export const CELLS = { columns: 16, rows: 9 };
const LUMA_BINS = 16;
const CHROMA_BINS = 8;
/** Factor by which the frame is finer than the stored luma, each way. */
const FINER = 2;
const COLUMNS = LUMA_GRID.columns * FINER;
const ROWS = LUMA_GRID.rows * FINER;
/** Chroma samples along a cell, half as many as of luma. */
const HALF_CELL = COLUMNS / CELLS.columns / 2;
/** Size to which a frame is reduced before its features are computed. */
export const FEATURE_SIZE = { width: COLUMNS, height: ROWS };

/** Each value divided, in 8 bits. */
function divided(values: Int32Array, by: number): Uint8Array {
  const out = new Uint8Array(values.length);
  for (let i = 0; i < values.length; i++) out[i] = values[i]! / by;
  return out;
}

/** Counts as shares of 255, so that pictures of any size compare. */
function toShares(counts: Int32Array): Uint8Array {
  const out = new Uint8Array(counts.length);
  for (let i = 0; i < counts.length; i++) out[i] = Math.round((255 * counts[i]!) / (COLUMNS * ROWS));
  return out;
}

/**
 * Features of one frame, reduced to `FEATURE_SIZE` by the mean of each block of pixels, whatever its aspect ratio.
 * @throws Error if the image has another size
 */
export function frameFeatures({ width, height, ...planes }: YuvImage): FrameFeatures {
  if (width !== COLUMNS || height !== ROWS) throw new Error("a frame must be reduced before features are taken");
  const memory = new KernelMemory();
  const luma = memory.put(planes.luma);
  const [blue, red] = [memory.put(planes.blue), memory.put(planes.red)];
  const [lumaValues, chromaValues] = [memory.put(FULL_LUMA), memory.put(FULL_CHROMA)];
  const sizes = { bins: LUMA_BINS + CHROMA_BINS * CHROMA_BINS, luma: LUMA_GRID.columns * LUMA_GRID.rows };
  const cells = 2 * CELLS.columns * CELLS.rows;
  const bins = memory.put(new Int32Array(sizes.bins));
  const [sums, chromaSums] = [memory.put(new Int32Array(sizes.luma)), memory.put(new Int32Array(cells))];
  loops().tallyLuma(luma, COLUMNS, ROWS, lumaValues, bins, FINER, sums);
  loops().tallyChroma(blue, red, COLUMNS / 2, ROWS / 2, chromaValues, bins + 4 * LUMA_BINS, HALF_CELL, chromaSums);
  const histogram = memory.ints(bins, sizes.bins);
  // Each chroma sample stands for four pixels.
  for (let bin = LUMA_BINS; bin < sizes.bins; bin++) histogram[bin]! *= 4;
  return {
    histogram: toShares(histogram),
    luma: divided(memory.ints(sums, sizes.luma), FINER * FINER),
    chroma: divided(memory.ints(chromaSums, cells), HALF_CELL * HALF_CELL),
  };
}

/** Share of the pixels whose colour would have to change to turn one histogram into the other, 0 to 1. */
export function histogramDistance(a: FrameFeatures, b: FrameFeatures): number {
  let sum = 0;
  for (let i = 0; i < a.histogram.length; i++) sum += Math.abs(a.histogram[i]! - b.histogram[i]!);
  return sum / (4 * 255);
}

/** Mean absolute difference of luma in place, 0 to 1. */
export function lumaDistance(a: FrameFeatures, b: FrameFeatures): number {
  let sum = 0;
  for (let i = 0; i < a.luma.length; i++) sum += Math.abs(a.luma[i]! - b.luma[i]!);
  return sum / (255 * a.luma.length);
}

/** Mean absolute difference of chroma in place, 0 to 1. */
export function chromaDistance(a: FrameFeatures, b: FrameFeatures): number {
  let sum = 0;
  for (let i = 0; i < a.chroma.length; i++) sum += Math.abs(a.chroma[i]! - b.chroma[i]!);
  return sum / (255 * a.chroma.length);
}

/** Mean and standard deviation of the picture's luma, 0 to 255. */
export function lumaStatistics({ luma }: FrameFeatures): { mean: number; deviation: number } {
  let sum = 0;
  let squares = 0;
  for (const value of luma) {
    sum += value;
    squares += value * value;
  }
  const mean = sum / luma.length;
  return { mean, deviation: Math.sqrt(Math.max(0, squares / luma.length - mean * mean)) };
}
