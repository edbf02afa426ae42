/**
 * The inner loops of the optical flow, in AssemblyScript for WebAssembly SIMD (`npm run build:kernels`). Planes are of
 * 32-bit floats, in row-major order. Lines of a square are padded to whole vectors, so that loads reach some samples beyond
 * it.
 */

/** Samples compared on each side of a point. */
const RADIUS: i32 = 3;
const SIDE: i32 = 2 * RADIUS + 1;
const AREA: f32 = <f32>(SIDE * SIDE);
/** Bytes of a padded line of the square, and of the larger one from which its gradients are taken. */
const LINE: usize = 8 << 2;
const WIDE_LINE: usize = 12 << 2;
const STEPS: i32 = 5;
/** A step of less than this, in samples, ends the search. */
const SMALL_STEP: f32 = 0.04;
/**
 * Determinant of the structure tensor below which, absolutely or relative to its largest value, a point is on a straight
 * edge, or is noise.
 */
const LEAST_DETERMINANT: f64 = 1e-3 * 49 * 49;
const LEAST_RELATIVE: f64 = 1e-6;

const wide = memory.data(9 * 12 * 4, 16);
const centre = memory.data(7 * 8 * 4, 16);
const gradientX = memory.data(7 * 8 * 4, 16);
const gradientY = memory.data(7 * 8 * 4, 16);
const errors = memory.data(7 * 8 * 4, 16);

/** One level of the pyramids of two pictures. */
@unmanaged
class Level {
  before: usize;
  after: usize;
  width: i32;
  height: i32;
}
const LEVEL_BYTES: usize = 16;

/** Points to be followed, in samples of the first level, and the result for each. */
@unmanaged
class Points {
  count: i32;
  x: usize;
  y: usize;
  dx: usize;
  dy: usize;
  /** Mean difference between the match and the original; the largest number there is where there was none. */
  residual: usize;
  /** Root mean square of the gradient there. */
  contrast: usize;
}

let foundX: f32 = 0;
let foundY: f32 = 0;
let residual: f32 = 0;
let contrast: f32 = 0;

function total(v: v128): f32 {
  return f32x4.extract_lane(v, 0) + f32x4.extract_lane(v, 1) + (f32x4.extract_lane(v, 2) + f32x4.extract_lane(v, 3));
}

/** Interpolates linearly. */
function mix(from: v128, to: v128, share: v128): v128 {
  return f32x4.add(from, f32x4.mul(share, f32x4.sub(to, from)));
}

/** Four samples interpolated between those at an address and those beside them. */
function beside(at: usize, fx: v128): v128 {
  return mix(v128.load(at), v128.load(at, 4), fx);
}

/** Whether a square around a point can be sampled; not if the point is undefined. */
function isInside(level: Level, x: f32, y: f32, radius: i32): bool {
  const far = <f32>radius;
  return x >= far && y >= far && x < <f32>(level.width - radius - 1) && y < <f32>(level.height - radius - 1);
}

/** Improves a guess of a point's place on one level; false if that is not possible. */
function refine(level: Level, x: f32, y: f32, guessX: f32, guessY: f32): bool {
  const stride = (<usize>level.width) << 2;
  const far = RADIUS + 1;
  if (!isInside(level, x, y, far)) return false;
  let column = <i32>Mathf.floor(x);
  let row = <i32>Mathf.floor(y);
  let fx = f32x4.splat(x - <f32>column);
  let fy = f32x4.splat(y - <f32>row);
  let from = level.before + <usize>(row - far) * stride + ((<usize>(column - far)) << 2);
  for (let i: usize = 0; i < WIDE_LINE; i += 16) {
    let above = beside(from + i, fx);
    let below = from + i + stride;
    for (let to = wide + i; to < wide + 9 * WIDE_LINE; to += WIDE_LINE, below += stride) {
      const next = beside(below, fx);
      v128.store(to, mix(above, next, fy));
      above = next;
    }
  }
  // A line of the square has seven samples.
  const mask = i32x4(-1, -1, -1, 0);
  const half = f32x4.splat(0.5);
  let sumX = f32x4.splat(0);
  let sumY = f32x4.splat(0);
  let sumXX = f32x4.splat(0);
  let sumXY = f32x4.splat(0);
  let sumYY = f32x4.splat(0);
  for (let j = 0; j < SIDE; j++) {
    const line = wide + <usize>(j + 1) * WIDE_LINE;
    const to = <usize>j * LINE;
    for (let i: usize = 0; i < 32; i += 16) {
      const at = line + i;
      let gx = f32x4.mul(half, f32x4.sub(v128.load(at, 8), v128.load(at)));
      let gy = f32x4.mul(half, f32x4.sub(v128.load(at + WIDE_LINE, 4), v128.load(at - WIDE_LINE, 4)));
      let middle = v128.load(at, 4);
      if (i == 16) {
        gx = v128.and(gx, mask);
        gy = v128.and(gy, mask);
        middle = v128.and(middle, mask);
      }
      v128.store(gradientX + to + i, gx);
      v128.store(gradientY + to + i, gy);
      v128.store(centre + to + i, middle);
      sumX = f32x4.add(sumX, gx);
      sumY = f32x4.add(sumY, gy);
      sumXX = f32x4.add(sumXX, f32x4.mul(gx, gx));
      sumXY = f32x4.add(sumXY, f32x4.mul(gx, gy));
      sumYY = f32x4.add(sumYY, f32x4.mul(gy, gy));
    }
  }
  const sx = total(sumX);
  const sy = total(sumY);
  const xx = total(sumXX);
  const xy = total(sumXY);
  const yy = total(sumYY);
  const most = <f64>xx * <f64>yy;
  const determinant = most - <f64>xy * <f64>xy;
  if (determinant < LEAST_DETERMINANT || determinant < LEAST_RELATIVE * most) return false;
  let dx = guessX;
  let dy = guessY;
  let mean: f32 = 0;
  for (let step = 0; step < STEPS; step++) {
    const u = x + dx;
    const v = y + dy;
    if (!isInside(level, u, v, RADIUS)) return false;
    column = <i32>Mathf.floor(u);
    row = <i32>Mathf.floor(v);
    fx = f32x4.splat(u - <f32>column);
    fy = f32x4.splat(v - <f32>row);
    from = level.after + <usize>(row - RADIUS) * stride + ((<usize>(column - RADIUS)) << 2);
    let sum = f32x4.splat(0);
    let byX = f32x4.splat(0);
    let byY = f32x4.splat(0);
    let above = beside(from, fx);
    let above2 = beside(from + 16, fx);
    for (let to: usize = 0; to < 7 * LINE; to += LINE) {
      from += stride;
      const below = beside(from, fx);
      const below2 = beside(from + 16, fx);
      const left = f32x4.sub(mix(above, below, fy), v128.load(centre + to));
      const right = f32x4.sub(v128.and(mix(above2, below2, fy), mask), v128.load(centre + to, 16));
      above = below;
      above2 = below2;
      v128.store(errors + to, left);
      v128.store(errors + to, right, 16);
      sum = f32x4.add(sum, f32x4.add(left, right));
      byX = f32x4.add(byX, f32x4.mul(left, v128.load(gradientX + to)));
      byX = f32x4.add(byX, f32x4.mul(right, v128.load(gradientX + to, 16)));
      byY = f32x4.add(byY, f32x4.mul(left, v128.load(gradientY + to)));
      byY = f32x4.add(byY, f32x4.mul(right, v128.load(gradientY + to, 16)));
    }
    // A common change of brightness is no movement.
    mean = total(sum) / AREA;
    const bx = <f64>(total(byX) - mean * sx);
    const by = <f64>(total(byY) - mean * sy);
    const stepX = <f32>((<f64>yy * bx - <f64>xy * by) / determinant);
    const stepY = <f32>((<f64>xx * by - <f64>xy * bx) / determinant);
    dx -= stepX;
    dy -= stepY;
    if (stepX * stepX + stepY * stepY < SMALL_STEP * SMALL_STEP) break;
  }
  foundX = dx;
  foundY = dy;
  // The last sampled values stand for those after the last, small step.
  const common = f32x4.splat(mean);
  let difference = f32x4.splat(0);
  for (let at = errors; at < errors + 7 * LINE; at += LINE) {
    difference = f32x4.add(difference, f32x4.abs(f32x4.sub(v128.load(at), common)));
    difference = f32x4.add(difference, v128.and(f32x4.abs(f32x4.sub(v128.load(at, 16), common)), mask));
  }
  residual = total(difference) / AREA;
  contrast = Mathf.sqrt((xx + yy) / AREA);
  return true;
}

/** Follows a point from the smallest level to the largest; the guess is in samples of the smallest. */
function follow(levels: usize, count: i32, x: f32, y: f32, guessX: f32, guessY: f32): bool {
  let dx = guessX;
  let dy = guessY;
  for (let level = count - 1; level > 0; level--) {
    const scale: f32 = 1 / <f32>(1 << level);
    const at = changetype<Level>(levels + <usize>level * LEVEL_BYTES);
    // A level too coarse to decide leaves it to the next one.
    if (refine(at, (x + 0.5) * scale - 0.5, (y + 0.5) * scale - 0.5, dx, dy)) {
      dx = foundX;
      dy = foundY;
    }
    dx *= 2;
    dy *= 2;
  }
  return refine(changetype<Level>(levels), x, y, dx, dy);
}

/**
 * Follows points from one picture to the next. Every search starts at the point's place and, if the whole picture moved,
 * also at the shifted place; the better match is taken.
 * @param shiftX,shiftY shift of the whole picture, in samples of the smallest level
 */
export function followPoints(levels: usize, count: i32, points: Points, shiftX: f32, shiftY: f32): void {
  for (let i = 0; i < points.count; i++) {
    const at = (<usize>i) << 2;
    const x = load<f32>(points.x + at);
    const y = load<f32>(points.y + at);
    let least = f32.MAX_VALUE;
    if (follow(levels, count, x, y, 0, 0)) least = keep(points, at);
    if (shiftX != 0 || shiftY != 0) {
      if (follow(levels, count, x, y, shiftX, shiftY) && residual < least) least = keep(points, at);
    }
    store<f32>(points.residual + at, least);
  }
}

function keep(points: Points, at: usize): f32 {
  store<f32>(points.dx + at, foundX);
  store<f32>(points.dy + at, foundY);
  store<f32>(points.contrast + at, contrast);
  return residual;
}

/** The centre of the most structured block in each cell of a grid, where there is any structure; returns how many. */
export function findCorners(
  plane: usize,
  width: i32,
  height: i32,
  cell: i32,
  block: i32,
  leastStructure: f64,
  x: usize,
  y: usize,
): i32 {
  const border = RADIUS + 1;
  let count: usize = 0;
  for (let top = border; top + cell <= height - border; top += cell) {
    for (let left = border; left + cell <= width - border; left += cell) {
      let best = leastStructure;
      let bestX = -1;
      let bestY = -1;
      for (let v = top; v < top + cell; v += block) {
        for (let u = left; u < left + cell; u += block) {
          const structure = structureOf(plane, width, u, v, block);
          if (structure <= best) continue;
          best = structure;
          bestX = u;
          bestY = v;
        }
      }
      if (bestX < 0) continue;
      store<f32>(x + (count << 2), <f32>(bestX + (block >> 1)));
      store<f32>(y + (count << 2), <f32>(bestY + (block >> 1)));
      count++;
    }
  }
  return <i32>count;
}

/** The smaller eigenvalue of a block's structure tensor, per sample. */
function structureOf(plane: usize, width: i32, left: i32, top: i32, block: i32): f64 {
  const stride = (<usize>width) << 2;
  let xx: f32 = 0;
  let xy: f32 = 0;
  let yy: f32 = 0;
  for (let v = top; v < top + block; v++) {
    let at = plane + <usize>v * stride + ((<usize>left) << 2);
    for (let u = 0; u < block; u++, at += 4) {
      const gx = load<f32>(at + 4) - load<f32>(at - 4);
      const gy = load<f32>(at + stride) - load<f32>(at - stride);
      xx += gx * gx;
      xy += gx * gy;
      yy += gy * gy;
    }
  }
  const half = (<f64>xx - <f64>yy) / 2;
  const area = <f64>(4 * block * block);
  return ((<f64>xx + <f64>yy) / 2 - Math.sqrt(half * half + <f64>xy * <f64>xy)) / area;
}

/** Mean difference of two planes in their overlap, with the second shifted by whole samples. */
export function shiftedDifference(before: usize, after: usize, width: i32, height: i32, dx: i32, dy: i32): f64 {
  const left = max(0, -dx);
  const right = min(width, width - dx);
  const top = max(0, -dy);
  const bottom = min(height, height - dy);
  let sum: f32 = 0;
  for (let y = top; y < bottom; y++) {
    let a = before + ((<usize>(y * width + left)) << 2);
    let b = after + ((<usize>((y + dy) * width + left + dx)) << 2);
    for (let x = left; x < right; x++, a += 4, b += 4) sum += abs(load<f32>(b) - load<f32>(a));
  }
  return <f64>sum / <f64>((bottom - top) * (right - left));
}

/** 8-bit samples as floats; four more may be read and written at the end. */
export function toFloats(from: usize, to: usize, count: i32): void {
  for (let i = 0; i < count; i += 4) {
    const four = i32x4.extend_low_i16x8_u(i16x8.extend_low_i8x16_u(v128.load32_zero(from + <usize>i)));
    v128.store(to + ((<usize>i) << 2), f32x4.convert_i32x4_u(four));
  }
}
