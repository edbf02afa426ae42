/**
 * Finds what moves against the camera's own motion, for shots in which nothing known is seen: between frames a
 * little apart the picture's common shift is estimated by correlation (Kuglin & Hines 1975) and taken out; what remains is summed on a grid; and the strongest steady trail through the shot is found by dynamic
 * programming. Its clearest moment gives a box from which a correlation filter can follow the thing.
 */
import type { Box, Size } from "../geometry/box";
import { lumaOf, type RgbImage, shrink } from "../image/rgb-image";
import { fft2d } from "./fft";

const SIDE = 128;
const GRID = { columns: 32, rows: 18 };
const CELLS = GRID.columns * GRID.rows;
/** How many cells the trail may go from one look to the next. */
const REACH = 3;
/** What a step of one cell costs, in units of mean energy. */
const STEP_COST = 0.4;
/** Mean residual, of 255, below which nothing can be said to move. */
const MIN_ENERGY = 2;

/** The motion seen between two frames. */
export interface MotionLook {
  frame: number;
  /** Residual in each cell, 0 to 255, row by row. */
  energy: Float32Array;
}

/** Peaks of a correlation that are tried as the camera's shift, and how far a residual counts, of 255. */
const PEAKS = 4;
const RESIDUAL_CAP = 24;

interface Shift {
  dx: number;
  dy: number;
}

function transform(luma: Float32Array): { re: Float64Array; im: Float64Array } {
  let mean = 0;
  for (const value of luma) mean += value / luma.length;
  const re = new Float64Array(SIDE * SIDE);
  const im = new Float64Array(SIDE * SIDE);
  for (let y = 0; y < SIDE; y++) {
    const wy = Math.sin((Math.PI * (y + 0.5)) / SIDE);
    for (let x = 0; x < SIDE; x++) {
      re[y * SIDE + x] = (luma[y * SIDE + x]! - mean) * wy * Math.sin((Math.PI * (x + 0.5)) / SIDE);
    }
  }
  fft2d(re, im, SIDE, false);
  return { re, im };
}

/** The strongest peaks of a periodic surface, each at least two cells from the others. */
function strongestPeaks(surface: Float64Array): Shift[] {
  const order = Array.from(surface.keys()).sort((a, b) => surface[b]! - surface[a]!);
  const wrap = (k: number) => (k > SIDE / 2 ? k - SIDE : k);
  const peaks: Shift[] = [];
  for (const at of order.slice(0, 200)) {
    const shift = { dx: wrap(at % SIDE), dy: wrap(Math.floor(at / SIDE)) };
    if (peaks.every((peak) => Math.hypot(peak.dx - shift.dx, peak.dy - shift.dy) >= 2)) peaks.push(shift);
    if (peaks.length === PEAKS) break;
  }
  return peaks;
}

/** Mean difference under a shift, each pixel's capped, so that what moves by itself has little say. */
function cappedResidual(before: Float32Array, after: Float32Array, { dx, dy }: Shift): number {
  let sum = 0;
  let count = 0;
  for (let y = Math.max(0, dy); y < Math.min(SIDE, SIDE + dy); y += 2) {
    for (let x = Math.max(0, dx); x < Math.min(SIDE, SIDE + dx); x += 2) {
      sum += Math.min(RESIDUAL_CAP, Math.abs(after[y * SIDE + x]! - before[(y - dy) * SIDE + x - dx]!));
      count++;
    }
  }
  return count > 0 ? sum / count : Infinity;
}

/**
 * Shift of picture `after` against `before`, both SIDE × SIDE luma, in cells. Correlation proposes, with and
 * without whitening (the one is sharp, the other does not overrate fine texture); of the proposals and standing
 * still, the one is taken that explains most of the picture.
 */
function commonShift(before: Float32Array, after: Float32Array): Shift {
  const a = transform(before);
  const b = transform(after);
  const candidates: Shift[] = [{ dx: 0, dy: 0 }];
  for (const whitened of [true, false]) {
    const re = new Float64Array(SIDE * SIDE);
    const im = new Float64Array(SIDE * SIDE);
    for (let i = 0; i < re.length; i++) {
      const r = b.re[i]! * a.re[i]! + b.im[i]! * a.im[i]!;
      const m = b.im[i]! * a.re[i]! - b.re[i]! * a.im[i]!;
      const size = whitened ? Math.hypot(r, m) + 1e-9 : 1;
      re[i] = r / size;
      im[i] = m / size;
    }
    fft2d(re, im, SIDE, true);
    candidates.push(...strongestPeaks(re));
  }
  let best = candidates[0]!;
  let least = Infinity;
  for (const candidate of candidates) {
    const residual = cappedResidual(before, after, candidate);
    if (residual < least) [best, least] = [candidate, residual];
  }
  // A broad peak may be off by a cell or two.
  for (let improved = true; improved;) {
    improved = false;
    const { dx, dy } = best;
    for (const [x, y] of [
      [1, 0],
      [-1, 0],
      [0, 1],
      [0, -1],
    ] as const) {
      const neighbour = { dx: dx + x, dy: dy + y };
      const residual = cappedResidual(before, after, neighbour);
      if (residual < least) {
        [best, least] = [neighbour, residual];
        improved = true;
      }
    }
  }
  return best;
}

/** Looks at frames as they come and keeps what moved; frames are compared `interval` apart. */
export class MotionWatcher {
  readonly looks: MotionLook[] = [];
  private readonly recent: Float32Array[] = [];

  constructor(private readonly interval: number) {}

  add(frame: number, image: RgbImage): void {
    const luma = lumaOf(shrink(image, SIDE, SIDE));
    const earlier = this.recent[this.recent.length - this.interval];
    if (earlier) this.looks.push({ frame, energy: this.residual(earlier, luma) });
    this.recent.push(luma);
    if (this.recent.length > this.interval) this.recent.shift();
  }

  private residual(before: Float32Array, after: Float32Array): Float32Array {
    const { dx, dy } = commonShift(before, after);
    const energy = new Float32Array(CELLS);
    const counts = new Float32Array(CELLS);
    for (let y = 0; y < SIDE; y++) {
      const sy = y - dy;
      if (sy < 1 || sy >= SIDE - 1) continue;
      for (let x = 0; x < SIDE; x++) {
        const sx = x - dx;
        if (sx < 1 || sx >= SIDE - 1) continue;
        const value = after[y * SIDE + x]!;
        // The least difference to the shifted neighbourhood, so that shifts of a part of a cell count for nothing.
        let least = Infinity;
        for (let j = -1; j <= 1; j++) {
          for (let i = -1; i <= 1; i++) least = Math.min(least, Math.abs(value - before[(sy + j) * SIDE + sx + i]!));
        }
        const cell = Math.floor((y * GRID.rows) / SIDE) * GRID.columns + Math.floor((x * GRID.columns) / SIDE);
        energy[cell]! += least;
        counts[cell]! += 1;
      }
    }
    return energy.map((sum, i) => (counts[i]! > 0 ? sum / counts[i]! : 0));
  }
}

/** Mean of each cell and its eight neighbours. */
function blur(energy: Float32Array): Float32Array {
  return energy.map((_, i) => {
    const column = i % GRID.columns;
    const row = Math.floor(i / GRID.columns);
    let sum = 0;
    let count = 0;
    for (let y = Math.max(0, row - 1); y <= Math.min(GRID.rows - 1, row + 1); y++) {
      for (let x = Math.max(0, column - 1); x <= Math.min(GRID.columns - 1, column + 1); x++) {
        sum += energy[y * GRID.columns + x]!;
        count++;
      }
    }
    return sum / count;
  });
}

/** The cells of the strongest trail, one a look (Viterbi). */
function strongestTrail(energies: Float32Array[], unit: number): number[] {
  let scores = Array.from(energies[0]!);
  const from: Int32Array[] = [];
  for (const energy of energies.slice(1)) {
    const next = new Array<number>(CELLS).fill(-Infinity);
    const origin = new Int32Array(CELLS);
    for (let cell = 0; cell < CELLS; cell++) {
      const column = cell % GRID.columns;
      const row = Math.floor(cell / GRID.columns);
      for (let y = Math.max(0, row - REACH); y <= Math.min(GRID.rows - 1, row + REACH); y++) {
        for (let x = Math.max(0, column - REACH); x <= Math.min(GRID.columns - 1, column + REACH); x++) {
          const earlier = y * GRID.columns + x;
          const score = scores[earlier]! - STEP_COST * unit * Math.hypot(x - column, y - row);
          if (score > next[cell]!) {
            next[cell] = score;
            origin[cell] = earlier;
          }
        }
      }
      next[cell]! += energy[cell]!;
    }
    scores = next;
    from.push(origin);
  }
  let cell = scores.indexOf(Math.max(...scores));
  const trail = [cell];
  for (let i = from.length - 1; i >= 0; i--) trail.unshift((cell = from[i]![cell]!));
  return trail;
}

/** Bounding box, in cells, of the connected cells around a start that hold at least a share of its energy. */
function regionAround(energy: Float32Array, start: number, share: number): Box {
  const threshold = share * energy[start]!;
  const open = [start];
  const seen = new Set(open);
  let [left, top, right, bottom] = [GRID.columns, GRID.rows, 0, 0];
  while (open.length > 0) {
    const cell = open.pop()!;
    const column = cell % GRID.columns;
    const row = Math.floor(cell / GRID.columns);
    [left, right] = [Math.min(left, column), Math.max(right, column + 1)];
    [top, bottom] = [Math.min(top, row), Math.max(bottom, row + 1)];
    for (const [x, y] of [
      [column - 1, row],
      [column + 1, row],
      [column, row - 1],
      [column, row + 1],
    ] as const) {
      const neighbour = y * GRID.columns + x;
      const inside = x >= 0 && y >= 0 && x < GRID.columns && y < GRID.rows;
      if (!inside || seen.has(neighbour) || energy[neighbour]! < threshold) continue;
      seen.add(neighbour);
      open.push(neighbour);
    }
  }
  return { x: left, y: top, width: right - left, height: bottom - top };
}

/** Where to start following what moves most in a shot; null if nothing clearly does. Pixels of `picture`. */
export function mostMoving(looks: readonly MotionLook[], picture: Size): { frame: number; box: Box } | null {
  if (looks.length === 0) return null;
  const energies = looks.map((look) => blur(look.energy));
  const all = energies.flatMap((energy) => Array.from(energy));
  const unit = all.reduce((a, b) => a + b, 0) / all.length;
  const trail = strongestTrail(energies, unit);
  const along = trail.map((cell, i) => energies[i]![cell]!);
  const mean = along.reduce((a, b) => a + b, 0) / along.length;
  if (mean < MIN_ENERGY || mean < 2.5 * unit) return null;
  const clearest = along.indexOf(Math.max(...along));
  const cells = regionAround(energies[clearest]!, trail[clearest]!, 0.4);
  const scaleX = picture.width / GRID.columns;
  const scaleY = picture.height / GRID.rows;
  return {
    frame: looks[clearest]!.frame,
    box: { x: cells.x * scaleX, y: cells.y * scaleY, width: cells.width * scaleX, height: cells.height * scaleY },
  };
}
