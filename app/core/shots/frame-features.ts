import { lumaOf, type RgbImage, shrink } from "../image/rgb-image";

/**
 * What is kept of a frame to find shots by: a colour histogram, the picture in small, and its colours in smaller
 * still. Under 3 kB a frame, so that an hour can be decided again without decoding.
 */
export interface FrameFeatures {
  /** 16 bins of luma, then 8 × 8 of the colour differences; each part sums to about 255. */
  histogram: Uint8Array;
  /** Luma, 64 × 36. */
  luma: Uint8Array;
  /** Blue and red colour difference of each cell of a 16 × 9 grid, 128 for none. */
  chroma: Uint8Array;
}

export const LUMA_GRID = { columns: 64, rows: 36 };
export const CELLS = { columns: 16, rows: 9 };
const LUMA_BINS = 16;
const CHROMA_BINS = 8;
/** The histogram's grid is finer than the picture's by this factor each way. */
const FINER = 2;
const COLUMNS = LUMA_GRID.columns * FINER;
const ROWS = LUMA_GRID.rows * FINER;

/** Counts turned into shares of 255, so that pictures of any size compare. */
const toShares = (counts: Uint32Array): Uint8Array =>
  Uint8Array.from(counts, (count) => Math.round((255 * count) / (COLUMNS * ROWS)));

/** Features of one small frame (any size; 640 pixels wide is plenty). */
export function frameFeatures(image: RgbImage): FrameFeatures {
  const rgb = shrink(image, COLUMNS, ROWS);
  const fine = lumaOf(rgb);
  const histogram = new Uint32Array(LUMA_BINS + CHROMA_BINS * CHROMA_BINS);
  const luma = new Float32Array(LUMA_GRID.columns * LUMA_GRID.rows);
  const chroma = new Float32Array(CELLS.columns * CELLS.rows * 2);
  const cell = COLUMNS / CELLS.columns;
  for (let y = 0; y < ROWS; y++) {
    const lumaRow = ((y / FINER) | 0) * LUMA_GRID.columns;
    const cellRow = ((y / cell) | 0) * CELLS.columns;
    for (let x = 0; x < COLUMNS; x++) {
      const i = y * COLUMNS + x;
      const value = fine[i]!;
      // Rec.709 colour differences, scaled to 0..255; their extremes stay inside the last bins.
      const cb = Math.min(255, Math.max(0, (rgb[i * 3 + 2]! - value) / 1.8556 + 128));
      const cr = Math.min(255, Math.max(0, (rgb[i * 3]! - value) / 1.5748 + 128));
      histogram[(value * LUMA_BINS) >> 8]! += 1;
      histogram[LUMA_BINS + ((cr * CHROMA_BINS) >> 8) * CHROMA_BINS + ((cb * CHROMA_BINS) >> 8)]! += 1;
      luma[lumaRow + ((x / FINER) | 0)]! += value;
      const at = 2 * (cellRow + ((x / cell) | 0));
      chroma[at]! += cb;
      chroma[at + 1]! += cr;
    }
  }
  return {
    histogram: toShares(histogram),
    luma: Uint8Array.from(luma, (sum) => sum / (FINER * FINER)),
    chroma: Uint8Array.from(chroma, (sum) => sum / (cell * cell)),
  };
}

/** Share of the pixels whose colour would have to change for one histogram to become the other, 0 to 1. */
export function histogramDistance(a: FrameFeatures, b: FrameFeatures): number {
  let sum = 0;
  for (let i = 0; i < a.histogram.length; i++) sum += Math.abs(a.histogram[i]! - b.histogram[i]!);
  return sum / (4 * 255);
}

/** Mean absolute difference of two pictures in place, luma alone, 0 to 1. */
export function lumaDistance(a: FrameFeatures, b: FrameFeatures): number {
  let sum = 0;
  for (let i = 0; i < a.luma.length; i++) sum += Math.abs(a.luma[i]! - b.luma[i]!);
  return sum / (255 * a.luma.length);
}

/** Mean absolute difference of the colours in place, 0 to 1. */
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
