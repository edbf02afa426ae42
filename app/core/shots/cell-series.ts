import { CELLS, type FrameFeatures, LUMA_GRID } from "./frame-features";

/** Values per cell: luma and the two chroma values, 0 to 255. */
export const CHANNELS = 3;
export const CELL_COUNT = CELLS.columns * CELLS.rows;

/** The cell of each sample of the luma grid. */
const CELL_OF = Uint16Array.from({ length: LUMA_GRID.columns * LUMA_GRID.rows }, (_, i) => {
  const row = Math.floor((CELLS.rows * Math.floor(i / LUMA_GRID.columns)) / LUMA_GRID.rows);
  const column = Math.floor((CELLS.columns * (i % LUMA_GRID.columns)) / LUMA_GRID.columns);
  return row * CELLS.columns + column;
});

/**
 * A film's pictures so coarse that movement within them hardly shows: what remains is which picture it is. One row of
 * `CELL_COUNT × CHANNELS` values per frame.
 */
export function cellSeries(features: readonly FrameFeatures[]): Float32Array[] {
  const share = CELL_COUNT / CELL_OF.length;
  return features.map(({ luma, chroma }) => {
    const row = new Float32Array(CELL_COUNT * CHANNELS);
    for (let i = 0; i < luma.length; i++) row[CELL_OF[i]! * CHANNELS]! += luma[i]! * share;
    for (let c = 0; c < CELL_COUNT; c++) {
      row[c * CHANNELS + 1] = chroma[2 * c]!;
      row[c * CHANNELS + 2] = chroma[2 * c + 1]!;
    }
    return row;
  });
}

/** Sum of squared differences of two rows. */
export function squaredDistance(a: Float32Array, b: Float32Array): number {
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += (a[i]! - b[i]!) ** 2;
  return sum;
}

/** Correlation of the luma of two rows, and their joint contrast (root mean square over all channels). */
export function compareLuma(a: Float32Array, b: Float32Array): { correlation: number; contrast: number } {
  let sumA = 0;
  let sumB = 0;
  let squaresA = 0;
  let squaresB = 0;
  let products = 0;
  for (let i = 0; i < a.length; i += CHANNELS) {
    sumA += a[i]!;
    sumB += b[i]!;
    squaresA += a[i]! ** 2;
    squaresB += b[i]! ** 2;
    products += a[i]! * b[i]!;
  }
  const varianceA = Math.max(0, squaresA - sumA ** 2 / CELL_COUNT);
  const varianceB = Math.max(0, squaresB - sumB ** 2 / CELL_COUNT);
  const covariance = products - (sumA * sumB) / CELL_COUNT;
  return {
    correlation: covariance / (Math.sqrt(varianceA * varianceB) + 1e-6),
    contrast: Math.sqrt((varianceA + varianceB) / (CELL_COUNT * CHANNELS)),
  };
}
