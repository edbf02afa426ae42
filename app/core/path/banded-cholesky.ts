/**
 * Symmetric positive definite systems whose entries lie within `BANDWIDTH` of the diagonal. Rows are stored
 * as `matrix[i * STRIDE + k]` = M[i][i − k], k = 0 … BANDWIDTH. Cost and memory grow linearly with size.
 */
export const BANDWIDTH = 3;
export const STRIDE = BANDWIDTH + 1;

/** Replaces a matrix by its Cholesky factor (lower, same layout); entries outside the matrix are ignored. */
export function factorise(matrix: Float64Array, size: number): void {
  for (let i = 0; i < size; i++) {
    const row = i * STRIDE;
    for (let k = Math.min(BANDWIDTH, i); k >= 0; k--) {
      const j = i - k;
      let sum = matrix[row + k]!;
      // Columns that both rows share, left of column j.
      for (let m = k + 1; m <= Math.min(BANDWIDTH, i); m++) sum -= matrix[row + m]! * matrix[j * STRIDE + m - k]!;
      // A pivot that rounding has made tiny or negative is held up; its unknown then hardly moves.
      matrix[row + k] = k === 0 ? Math.sqrt(Math.max(sum, 1e-18)) : sum / matrix[j * STRIDE]!;
    }
  }
}

/** Solves with a factor; overwrites the right-hand side with the solution. */
export function solveFactorised(factor: Float64Array, size: number, rhs: Float64Array): void {
  for (let i = 0; i < size; i++) {
    let sum = rhs[i]!;
    for (let k = 1; k <= Math.min(BANDWIDTH, i); k++) sum -= factor[i * STRIDE + k]! * rhs[i - k]!;
    rhs[i] = sum / factor[i * STRIDE]!;
  }
  for (let i = size - 1; i >= 0; i--) {
    let sum = rhs[i]!;
    for (let k = 1; k <= BANDWIDTH && i + k < size; k++) sum -= factor[(i + k) * STRIDE + k]! * rhs[i + k]!;
    rhs[i] = sum / factor[i * STRIDE]!;
  }
}
