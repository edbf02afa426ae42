/**
 * Sparse optical flow between two pictures: the method of Lucas and Kanade (1981) on a pyramid (Bouguet 2001), at the
 * best corner (Shi and Tomasi 1994) of each cell of a grid.
 */
import type { Point } from "../../geometry/box";
import type { GreyPlane } from "../../image/grey-plane";

/** Samples from corner to corner, in the pyramid's largest level. */
const CELL = 10;
/** Side of the blocks of a cell of which the most structured is followed. */
const BLOCK = 5;
const HALF_BLOCK = BLOCK >> 1;
/** Samples on each side of a point that are compared. */
const RADIUS = 3;
const SIDE = 2 * RADIUS + 1;
const AREA = SIDE * SIDE;
const STEPS = 5;
/** A step of less than this, in samples, ends the search. */
const SMALL_STEP = 0.04;
/** Smaller eigenvalue of the structure, a sample, below which a point says nothing. */
const LEAST_STRUCTURE = 6;
/** A point was not found again when what is there differs by more than this, of 255, and this share of its contrast. */
const MAX_RESIDUAL = 4;
const RESIDUAL_SHARE = 0.35;
/** How far the whole picture is searched for, in samples of the smallest level, and what a sample costs, of 255. */
const COMMON_REACH = 4;
const SHIFT_COST = 0.15;
const BLIND_SHARE = 0.35;
const BLIND_UNLIKE = 35;

/** Points of one picture and where they went in the next; in samples of the largest level. */
export interface Flow {
  count: number;
  /** How many of the points, the first of all, are the picture's own corners, and how many those had been looked for. */
  corners: number;
  tried: number;
  /** How unlike the whole pictures are even where they fit best, 0 to 255. */
  unlike: number;
  x: Float32Array;
  y: Float32Array;
  dx: Float32Array;
  dy: Float32Array;
  /** Of which of the groups that were asked for a point is; `PICTURE_POINT` for the picture's own corners. */
  group: Int16Array;
}

export const PICTURE_POINT = -1;

/** The smaller eigenvalue of the structure tensor of a block, a sample. */
function structureOf({ samples, width }: GreyPlane, left: number, top: number): number {
  let xx = 0;
  let xy = 0;
  let yy = 0;
  for (let y = top; y < top + BLOCK; y++) {
    for (let at = y * width + left, end = at + BLOCK; at < end; at++) {
      const gx = samples[at + 1]! - samples[at - 1]!;
      const gy = samples[at + width]! - samples[at - width]!;
      xx += gx * gx;
      xy += gx * gy;
      yy += gy * gy;
    }
  }
  return ((xx + yy) / 2 - Math.sqrt(((xx - yy) / 2) ** 2 + xy * xy)) / (4 * BLOCK * BLOCK);
}

/** The middle of the most structured block of each cell, where there is any structure. */
function corners(plane: GreyPlane): { x: number; y: number }[] {
  const found: { x: number; y: number }[] = [];
  const border = RADIUS + 1;
  for (let top = border; top + CELL <= plane.height - border; top += CELL) {
    for (let left = border; left + CELL <= plane.width - border; left += CELL) {
      let best = LEAST_STRUCTURE;
      let corner: { x: number; y: number } | null = null;
      for (let y = top; y < top + CELL; y += BLOCK) {
        for (let x = left; x < left + CELL; x += BLOCK) {
          const structure = structureOf(plane, x, y);
          if (structure > best) [best, corner] = [structure, { x: x + HALF_BLOCK, y: y + HALF_BLOCK }];
        }
      }
      if (corner) found.push(corner);
    }
  }
  return found;
}

const template = new Float32Array((SIDE + 2) * (SIDE + 2));
const gradientX = new Float32Array(AREA);
const gradientY = new Float32Array(AREA);
const centre = new Float32Array(AREA);

/** Bilinear samples of a square around a point; false if it leaves the plane. */
function sampleSquare(plane: GreyPlane, x: number, y: number, radius: number, out: Float32Array): boolean {
  const { samples, width, height } = plane;
  const x0 = Math.floor(x);
  const y0 = Math.floor(y);
  if (x0 < radius || y0 < radius || x0 + radius + 1 >= width || y0 + radius + 1 >= height) return false;
  const fx = x - x0;
  const fy = y - y0;
  let to = 0;
  for (let j = -radius; j <= radius; j++) {
    let at = (y0 + j) * width + x0 - radius;
    let left = samples[at]! + fy * (samples[at + width]! - samples[at]!);
    for (let i = -radius; i <= radius; i++, to++) {
      at++;
      const right = samples[at]! + fy * (samples[at + width]! - samples[at]!);
      out[to] = left + fx * (right - left);
      left = right;
    }
  }
  return true;
}

const sampled = new Float32Array(AREA);

interface Found {
  dx: number;
  dy: number;
  /** Mean difference of what was found, 0 to 255. */
  residual: number;
  /** Root mean square of the gradient there, 0 to 255. */
  contrast: number;
}

/** Improves a guess of where a point went on one level; null if it cannot be told there. */
function refine(
  before: GreyPlane,
  after: GreyPlane,
  x: number,
  y: number,
  guess: { dx: number; dy: number },
): Found | null {
  if (!sampleSquare(before, x, y, RADIUS + 1, template)) return null;
  const line = SIDE + 2;
  let sumX = 0;
  let sumY = 0;
  let xx = 0;
  let xy = 0;
  let yy = 0;
  for (let j = 0, k = 0; j < SIDE; j++) {
    for (let i = 0; i < SIDE; i++, k++) {
      const at = (j + 1) * line + i + 1;
      const gx = 0.5 * (template[at + 1]! - template[at - 1]!);
      const gy = 0.5 * (template[at + line]! - template[at - line]!);
      gradientX[k] = gx;
      gradientY[k] = gy;
      centre[k] = template[at]!;
      sumX += gx;
      sumY += gy;
      xx += gx * gx;
      xy += gx * gy;
      yy += gy * gy;
    }
  }
  const determinant = xx * yy - xy * xy;
  if (determinant < 1e-3 * AREA * AREA) return null;
  let { dx, dy } = guess;
  let mean = 0;
  for (let step = 0; step < STEPS; step++) {
    if (!sampleSquare(after, x + dx, y + dy, RADIUS, sampled)) return null;
    let sum = 0;
    let bx = 0;
    let by = 0;
    for (let k = 0; k < AREA; k++) {
      const error = sampled[k]! - centre[k]!;
      sum += error;
      bx += error * gradientX[k]!;
      by += error * gradientY[k]!;
    }
    // A common change of light is no movement.
    mean = sum / AREA;
    bx -= mean * sumX;
    by -= mean * sumY;
    const stepX = (yy * bx - xy * by) / determinant;
    const stepY = (xx * by - xy * bx) / determinant;
    dx -= stepX;
    dy -= stepY;
    if (stepX * stepX + stepY * stepY < SMALL_STEP * SMALL_STEP) break;
  }
  let difference = 0;
  for (let k = 0; k < AREA; k++) difference += Math.abs(sampled[k]! - centre[k]! - mean);
  return { dx, dy, residual: difference / AREA, contrast: Math.sqrt((xx + yy) / AREA) };
}

/** The shift of a whole small plane that fits best, by the mean difference of what both show. */
function commonShift(before: GreyPlane, after: GreyPlane): { dx: number; dy: number; unlike: number } {
  const { width, height } = before;
  let best = { dx: 0, dy: 0 };
  let least = Infinity;
  const reach = { x: Math.min(COMMON_REACH, width >> 2), y: Math.min(COMMON_REACH, height >> 2) };
  for (let dy = -reach.y; dy <= reach.y; dy++) {
    for (let dx = -reach.x; dx <= reach.x; dx++) {
      let sum = 0;
      let count = 0;
      for (let y = Math.max(0, -dy); y < Math.min(height, height - dy); y++) {
        for (let x = Math.max(0, -dx); x < Math.min(width, width - dx); x++, count++) {
          sum += Math.abs(after.samples[(y + dy) * width + x + dx]! - before.samples[y * width + x]!);
        }
      }
      const mean = sum / count + SHIFT_COST * (Math.abs(dx) + Math.abs(dy));
      if (mean < least) [least, best] = [mean, { dx, dy }];
    }
  }
  return { ...best, unlike: least };
}

/**
 * Where the corners of one picture are in the next. Every search begins where the point was
 * and, if the whole picture went somewhere, also there; what is more like the point is taken.
 *
 * @param groups points that are to be followed as well, in samples of the largest level
 */
export function opticalFlow(
  before: readonly GreyPlane[],
  after: readonly GreyPlane[],
  groups: readonly (readonly Point[])[] = [],
): Flow {
  const own = corners(before[0]!);
  const points = [...own, ...groups.flat()];
  const groupOf = [...own.map(() => PICTURE_POINT), ...groups.flatMap((group, g) => group.map(() => g))];
  const smallest = before.length - 1;
  const shift = commonShift(before[smallest]!, after[smallest]!);
  const flow: Flow = {
    count: 0,
    corners: 0,
    tried: own.length,
    unlike: shift.unlike,
    x: new Float32Array(points.length),
    y: new Float32Array(points.length),
    dx: new Float32Array(points.length),
    dy: new Float32Array(points.length),
    group: new Int16Array(points.length),
  };
  const moves = shift.dx !== 0 || shift.dy !== 0;
  for (const [k, { x, y }] of points.entries()) {
    const standing = track(before, after, x, y, { dx: 0, dy: 0 });
    const moving = moves ? track(before, after, x, y, shift) : null;
    const found = standing && moving ? (moving.residual < standing.residual ? moving : standing) : (standing ?? moving);
    if (!found || found.residual > MAX_RESIDUAL + RESIDUAL_SHARE * found.contrast) continue;
    const i = flow.count++;
    if (k < own.length) flow.corners++;
    flow.group[i] = groupOf[k]!;
    flow.x[i] = x;
    flow.y[i] = y;
    flow.dx[i] = found.dx;
    flow.dy[i] = found.dy;
  }
  return flow;
}

/** Two pictures are too unlike for the flow between them to be believed: a flash, a cut, black. */
export const isBlind = ({ corners, tried, unlike }: Flow): boolean =>
  corners < BLIND_SHARE * tried || unlike > BLIND_UNLIKE;

/** Follows a point from the smallest level to the largest; `start` is in samples of the smallest. */
function track(
  before: readonly GreyPlane[],
  after: readonly GreyPlane[],
  x: number,
  y: number,
  start: { dx: number; dy: number },
): Found | null {
  let guess = start;
  for (let level = before.length - 1; level > 0; level--) {
    const scale = 2 ** -level;
    // A level that is too coarse to tell leaves it to the next one.
    const found =
      refine(before[level]!, after[level]!, (x + 0.5) * scale - 0.5, (y + 0.5) * scale - 0.5, guess) ?? guess;
    guess = { dx: 2 * found.dx, dy: 2 * found.dy };
  }
  return refine(before[0]!, after[0]!, x, y, guess);
}
