import { lumaOf, type RgbImage, shrink } from "../image/rgb-image";

/**
 * What is kept of a frame to find shots by: colour histograms of the whole picture and its quarters, a grid of
 * edge strength, and a thumbnail. A kilobyte a frame, so that an hour can be decided again at once.
 */
export interface FrameFeatures {
  /** 16 bins of luma, then 8 × 8 of the colour differences; sums to about 255. */
  histogram: Uint8Array;
  /** The same for each quarter with 16 and 4 × 4 bins. */
  quarters: Uint8Array;
  /** Mean gradient in each cell of a 16 × 9 grid. */
  edges: Uint8Array;
  /** Luma, 32 × 18. */
  thumbnail: Uint8Array;
}

const COLUMNS = 160;
const ROWS = 90;
export const THUMBNAIL = { columns: 32, rows: 18 };
const EDGE_GRID = { columns: 16, rows: 9 };
const WHOLE = { luma: 16, chroma: 8 };
const QUARTER = { luma: 16, chroma: 4 };

const binCount = (bins: typeof WHOLE) => bins.luma + bins.chroma * bins.chroma;

/** Counts turned into shares of 255, so that pictures of any size compare. */
function toShares(counts: Float32Array, offset: number, length: number, out: Uint8Array): void {
  let total = 0;
  for (let i = 0; i < length; i++) total += counts[offset + i]!;
  for (let i = 0; i < length; i++) out[offset + i] = Math.round((255 * counts[offset + i]!) / Math.max(1, total));
}

/** Index into a square of bins for two colour differences of 0 to 255. */
function chromaBin(cb: number, cr: number, bins: number): number {
  const column = Math.min(bins - 1, Math.max(0, (cb * bins) >> 8));
  const row = Math.min(bins - 1, Math.max(0, (cr * bins) >> 8));
  return row * bins + column;
}

/** Features of one small frame (any size; 640 pixels wide is plenty). */
export function frameFeatures(image: RgbImage): FrameFeatures {
  const rgb = shrink(image, COLUMNS, ROWS);
  const luma = lumaOf(rgb);
  const quarterBins = binCount(QUARTER);
  const whole = new Float32Array(binCount(WHOLE));
  const quarters = new Float32Array(4 * quarterBins);
  const edges = new Float32Array(EDGE_GRID.columns * EDGE_GRID.rows);
  const cellWidth = COLUMNS / EDGE_GRID.columns;
  const cellHeight = ROWS / EDGE_GRID.rows;
  for (let y = 0; y < ROWS; y++) {
    for (let x = 0; x < COLUMNS; x++) {
      const i = y * COLUMNS + x;
      const value = luma[i]!;
      // Rec.709 colour differences, scaled to 0..255.
      const cb = (rgb[i * 3 + 2]! - value) / 1.8556 + 127.5;
      const cr = (rgb[i * 3]! - value) / 1.5748 + 127.5;
      const quarter = ((y * 2 >= ROWS ? 2 : 0) + (x * 2 >= COLUMNS ? 1 : 0)) * quarterBins;
      whole[(value * WHOLE.luma) >> 8]! += 1;
      whole[WHOLE.luma + chromaBin(cb, cr, WHOLE.chroma)]! += 1;
      quarters[quarter + ((value * QUARTER.luma) >> 8)]! += 1;
      quarters[quarter + QUARTER.luma + chromaBin(cb, cr, QUARTER.chroma)]! += 1;
      if (x > 0 && y > 0) {
        const gradient = Math.abs(value - luma[i - 1]!) + Math.abs(value - luma[i - COLUMNS]!);
        edges[((y / cellHeight) | 0) * EDGE_GRID.columns + ((x / cellWidth) | 0)]! += gradient;
      }
    }
  }
  const features: FrameFeatures = {
    histogram: new Uint8Array(whole.length),
    quarters: new Uint8Array(quarters.length),
    edges: Uint8Array.from(edges, (sum) => Math.min(255, (sum / (cellWidth * cellHeight)) * 2)),
    thumbnail: Uint8Array.from(
      lumaOf(shrink({ width: COLUMNS, height: ROWS, data: rgb }, THUMBNAIL.columns, THUMBNAIL.rows)),
    ),
  };
  toShares(whole, 0, whole.length, features.histogram);
  for (let q = 0; q < 4; q++) toShares(quarters, q * quarterBins, quarterBins, features.quarters);
  return features;
}

/** Half the sum of absolute differences over the mean total: 0 for equal, 1 for disjoint histograms. */
function histogramDistance(a: Uint8Array, b: Uint8Array): number {
  let difference = 0;
  let total = 0;
  for (let i = 0; i < a.length; i++) {
    difference += Math.abs(a[i]! - b[i]!);
    total += a[i]! + b[i]!;
  }
  return total > 0 ? difference / total : 0;
}

/** Mean absolute difference of two thumbnails, 0 to 1. */
export function thumbnailDistance(a: FrameFeatures, b: FrameFeatures): number {
  let sum = 0;
  for (let i = 0; i < a.thumbnail.length; i++) sum += Math.abs(a.thumbnail[i]! - b.thumbnail[i]!);
  return sum / (255 * a.thumbnail.length);
}

/** How different two frames look, 0 to 1: colours at large, colours in place, and edges in place. */
export const frameDistance = (a: FrameFeatures, b: FrameFeatures): number =>
  0.5 * histogramDistance(a.histogram, b.histogram) +
  0.25 * histogramDistance(a.quarters, b.quarters) +
  0.25 * histogramDistance(a.edges, b.edges);

/** Mean and standard deviation of the thumbnail's luma, 0 to 255. */
export function lumaStatistics({ thumbnail }: FrameFeatures): { mean: number; deviation: number } {
  let sum = 0;
  let squares = 0;
  for (const value of thumbnail) {
    sum += value;
    squares += value * value;
  }
  const mean = sum / thumbnail.length;
  return { mean, deviation: Math.sqrt(Math.max(0, squares / thumbnail.length - mean * mean)) };
}
