/**
 * Symmetric positive definite systems whose entries lie within `BANDWIDTH` of the diagonal. Rows are stored
 * as `matrix[i * STRIDE + k]` = M[i][i − k], k = 0 … BANDWIDTH. Cost and memory grow linearly with size.
 */
export const BANDWIDTH = 3;
export const STRIDE = BANDWIDTH + 1;

/**
 * Replaces a matrix by its Cholesky factor (lower, same layout, with the diagonal's inverse); entries outside are ignored.
 */
export function factorise(matrix: Float64Array, size: number): void {
  // Entries at columns 1 to 3 to the left in the rows above, as far as the next row needs them.
  let [above1, above2, above3] = [0, 0, 0];
  let [above1Left1, above1Left2, above2Left1] = [0, 0, 0];
  for (let i = 0, row = 0; i < size; i++, row += STRIDE) {
    const left3 = i < 3 ? 0 : matrix[row + 3]! * above3;
    const left2 = i < 2 ? 0 : (matrix[row + 2]! - left3 * above2Left1) * above2;
    const left1 = i < 1 ? 0 : (matrix[row + 1]! - left3 * above1Left2 - left2 * above1Left1) * above1;
    const pivot = matrix[row]! - left3 * left3 - left2 * left2 - left1 * left1;
    // A pivot that rounding made tiny or negative is raised; its unknown then hardly moves.
    const inverse = 1 / Math.sqrt(Math.max(pivot, 1e-18));
    matrix[row] = inverse;
    matrix[row + 1] = left1;
    matrix[row + 2] = left2;
    matrix[row + 3] = left3;
    [above3, above2, above1] = [above2, above1, inverse];
    [above2Left1, above1Left1, above1Left2] = [above1Left1, left1, left2];
  }
}

/** Solves with a factor; overwrites the right-hand side with the solution. */
export function solveFactorised(factor: Float64Array, size: number, rhs: Float64Array): void {
  let [before1, before2, before3] = [0, 0, 0];
  for (let i = 0, row = 0; i < size; i++, row += STRIDE) {
    const sum = rhs[i]! - factor[row + 1]! * before1 - factor[row + 2]! * before2 - factor[row + 3]! * before3;
    [before3, before2, before1] = [before2, before1, sum * factor[row]!];
    rhs[i] = before1;
  }
  // Back substitution: each unknown, once known, is eliminated from the three before it.
  for (let i = size - 1, row = i * STRIDE; i >= 0; i--, row -= STRIDE) {
    const value = rhs[i]! * factor[row]!;
    rhs[i] = value;
    if (i >= 1) rhs[i - 1]! -= factor[row + 1]! * value;
    if (i >= 2) rhs[i - 2]! -= factor[row + 2]! * value;
    if (i >= 3) rhs[i - 3]! -= factor[row + 3]! * value;
  }
}
