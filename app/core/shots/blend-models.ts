/** Two models of a gradual transition over a range of frames, and how well each explains it. */
import { CELLS } from "./frame-features";
import { CELL_COUNT, CHANNELS, squaredDistance } from "./cell-series";

export interface BlendFit {
  /** Share of the later picture in each frame of [start, end]. */
  shares: Float64Array;
  /** Root mean square of the unexplained rest, relative to the difference of the two pictures. */
  residual: number;
}

/** Every frame is a mixture of the first and the last (least squares per frame). */
export function fitMixture(series: readonly Float32Array[], start: number, end: number): BlendFit {
  const a = series[start]!;
  const b = series[end]!;
  const power = squaredDistance(a, b) + 1e-6;
  const shares = new Float64Array(end - start + 1);
  let residual = 0;
  for (let frame = start; frame <= end; frame++) {
    const x = series[frame]!;
    let dot = 0;
    let distance = 0;
    for (let i = 0; i < a.length; i++) {
      const moved = x[i]! - a[i]!;
      dot += moved * (b[i]! - a[i]!);
      distance += moved * moved;
    }
    const share = dot / power;
    shares[frame - start] = share;
    residual += Math.max(0, distance - share * dot) / power;
  }
  return { shares, residual: Math.sqrt(residual / shares.length) };
}

export interface SweepFit extends BlendFit {
  /** How well the cells' times of change fit a front that sweeps over the picture, 0 to 1 (R²). */
  front: number;
  /** Standard deviation of these times, as a share of the range: about 0.29 if the front moves evenly. */
  spread: number;
  /** Share of the picture over which the two differ, 0 to 1 (participation ratio of the cells). */
  extent: number;
}

/** Solves a small symmetric positive system in place (Cholesky); `n` unknowns. */
function solveSymmetric(matrix: Float64Array, right: Float64Array, n: number): Float64Array {
  for (let i = 0; i < n; i++) {
    for (let j = 0; j <= i; j++) {
      let sum = matrix[i * n + j]!;
      for (let k = 0; k < j; k++) sum -= matrix[i * n + k]! * matrix[j * n + k]!;
      matrix[i * n + j] = i === j ? Math.sqrt(Math.max(1e-9, sum)) : sum / matrix[j * n + j]!;
    }
  }
  const out = Float64Array.from(right);
  for (let i = 0; i < n; i++) {
    for (let k = 0; k < i; k++) out[i]! -= matrix[i * n + k]! * out[k]!;
    out[i]! /= matrix[i * n + i]!;
  }
  for (let i = n - 1; i >= 0; i--) {
    for (let k = i + 1; k < n; k++) out[i]! -= matrix[k * n + i]! * out[k]!;
    out[i]! /= matrix[i * n + i]!;
  }
  return out;
}

/**
 * R² of a front t(x, y) = a + bx + cy + d·√(x² + y²) through the cells' times of change, weighted: a straight edge that
 * sweeps across is a plane, a circle that opens or closes is a cone.
 */
function frontFit(turns: Float64Array, weights: Float64Array): { front: number; deviation: number } {
  const n = 4;
  const matrix = new Float64Array(n * n);
  const right = new Float64Array(n);
  const basis = Array.from({ length: CELL_COUNT }, (_, c) => {
    const x = ((c % CELLS.columns) + 0.5) / CELLS.columns - 0.5;
    const y = (((c / CELLS.columns) | 0) + 0.5) / CELLS.columns - (0.5 * CELLS.rows) / CELLS.columns;
    return [1, x, y, Math.hypot(x, y)];
  });
  let total = 0;
  let mean = 0;
  for (let c = 0; c < CELL_COUNT; c++) {
    const row = basis[c]!;
    const weight = weights[c]!;
    total += weight;
    mean += weight * turns[c]!;
    for (let i = 0; i < n; i++) {
      right[i]! += weight * row[i]! * turns[c]!;
      for (let j = 0; j < n; j++) matrix[i * n + j]! += weight * row[i]! * row[j]!;
    }
  }
  if (total === 0) return { front: 0, deviation: 0 };
  mean /= total;
  for (let i = 0; i < n; i++) matrix[i * n + i]! += 1e-6 * total;
  const solution = solveSymmetric(matrix, right, n);
  let spread = 0;
  let rest = 0;
  for (let c = 0; c < CELL_COUNT; c++) {
    const fitted = basis[c]!.reduce((sum, value, i) => sum + value * solution[i]!, 0);
    spread += weights[c]! * (turns[c]! - mean) ** 2;
    rest += weights[c]! * (turns[c]! - fitted) ** 2;
  }
  return { front: spread > 0 ? Math.max(0, 1 - rest / spread) : 0, deviation: Math.sqrt(spread / total) };
}

/** Every cell shows the first picture up to its time of change, and the last picture from then on. */
export function fitSweep(series: readonly Float32Array[], start: number, end: number): SweepFit {
  const a = series[start]!;
  const b = series[end]!;
  const length = end - start + 1;
  const power = squaredDistance(a, b) + 1e-6;
  const turns = new Float64Array(CELL_COUNT);
  const weights = new Float64Array(CELL_COUNT);
  const shares = new Float64Array(length);
  let residual = 0;
  for (let c = 0; c < CELL_COUNT; c++) {
    const at = c * CHANNELS;
    let weight = 0;
    for (let k = at; k < at + CHANNELS; k++) weight += (b[k]! - a[k]!) ** 2;
    // Cost of changing at each frame: from "never changed" on, each frame is moved to the first picture's side.
    let cost = 0;
    const gain = new Float64Array(length);
    for (let t = 0; t < length; t++) {
      const x = series[start + t]!;
      let toA = 0;
      let toB = 0;
      for (let k = at; k < at + CHANNELS; k++) {
        toA += (x[k]! - a[k]!) ** 2;
        toB += (x[k]! - b[k]!) ** 2;
      }
      cost += toB;
      gain[t] = toA - toB;
    }
    let best = cost;
    let turn = 0;
    for (let t = 0; t < length; t++) {
      cost += gain[t]!;
      if (cost < best) {
        best = cost;
        turn = t + 1;
      }
    }
    turns[c] = turn;
    weights[c] = weight;
    residual += best;
    for (let t = turn; t < length; t++) shares[t]! += weight / power;
  }
  const { front, deviation } = frontFit(turns, weights);
  const squares = weights.reduce((sum, weight) => sum + weight * weight, 1e-6);
  const extent = power ** 2 / (squares * CELL_COUNT);
  return { shares, residual: Math.sqrt(residual / (length * power)), front, spread: deviation / length, extent };
}
