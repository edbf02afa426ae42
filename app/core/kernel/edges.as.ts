/**
 * The inner loops of edge detection, in AssemblyScript for WebAssembly SIMD (`npm run build:kernels`). Planes are of bytes,
 * in row-major order. Whole vectors may be read and written beyond a buffer's end.
 */

/** Clears the first and last column of a plane of 16-bit values. */
function clearColumns16(plane: usize, width: i32, height: i32): void {
  for (let y = 0; y < height; y++) {
    const row = plane + ((<usize>(y * width)) << 1);
    store<i16>(row, 0);
    store<i16>(row + ((<usize>(width - 1)) << 1), 0);
  }
}

/** Eight differences of bytes, 0 where they are no edge. */
function edgeAt(before: usize, after: usize, least: v128): v128 {
  const difference = i16x8.sub(v128.load8x8_u(after), v128.load8x8_u(before));
  return v128.and(difference, i16x8.ge_s(i16x8.abs(difference), least));
}

/**
 * Change of luma across each sample, to the right and downwards, in 16 bits, where it is an edge; 0 elsewhere and along the
 * border. Returns the number of samples with an edge.
 */
export function findEdges(samples: usize, width: i32, height: i32, least: i32, across: usize, down: usize): i32 {
  const count = width * height;
  memory.fill(across, 0, (<usize>count) << 1);
  memory.fill(down, 0, (<usize>count) << 1);
  const needed = i16x8.splat(<i16>least);
  const inside = count - width;
  for (let i = width; i < inside; i += 8) {
    const at = samples + <usize>i;
    v128.store(across + ((<usize>i) << 1), edgeAt(at - 1, at + 1, needed));
    v128.store(down + ((<usize>i) << 1), edgeAt(at - <usize>width, at + <usize>width, needed));
  }
  memory.fill(across + ((<usize>inside) << 1), 0, (<usize>width) << 1);
  memory.fill(down + ((<usize>inside) << 1), 0, (<usize>width) << 1);
  clearColumns16(across, width, height);
  clearColumns16(down, width, height);
  return countEither(across, down, count);
}

/** Number of places that are not 0 in either of two planes of 16-bit values. */
function countEither(a: usize, b: usize, count: i32): i32 {
  let found = 0;
  const last = (<usize>count) << 1;
  for (let at: usize = 0; at < last; at += 2) found += i32((load<i16>(a + at) | load<i16>(b + at)) != 0);
  return found;
}

/** Eight edges of one picture that are in another as well: of the same sign, and the weaker at least half as strong. */
function common(a: v128, b: v128): v128 {
  const sizeA = i16x8.abs(a);
  const sizeB = i16x8.abs(b);
  const less = i16x8.min_s(sizeA, sizeB);
  const alike = i16x8.ge_s(i16x8.shl(less, 1), i16x8.max_s(sizeA, sizeB));
  const sameSign = i16x8.ge_s(v128.xor(a, b), i16x8.splat(0));
  return v128.and(v128.bitselect(a, b, i16x8.lt_s(sizeA, sizeB)), v128.and(alike, sameSign));
}

/** Keeps the edges of one picture that are in another as well. Returns the number of samples with one. */
export function keepCommonEdges(across: usize, down: usize, otherAcross: usize, otherDown: usize, count: i32): i32 {
  const last = (<usize>count) << 1;
  for (let at: usize = 0; at < last; at += 16) {
    v128.store(across + at, common(v128.load(across + at), v128.load(otherAcross + at)));
    v128.store(down + at, common(v128.load(down + at), v128.load(otherDown + at)));
  }
  return countEither(across, down, count);
}

/**
 * Adds a picture to the record of edges in one direction over the last pictures, one bit each. An edge is where luma
 * changes from one sample to the next but one, by no less than beside it; an edge between two samples counts at either.
 * @param seen the bits of each sample, the latest picture's lowest
 * @param steps,edges scratch planes
 * @param stride from a sample to the next one across the edges
 * @param mask all bits
 */
export function seeLines(
  samples: usize,
  seen: usize,
  steps: usize,
  edges: usize,
  width: i32,
  height: i32,
  stride: usize,
  least: i32,
  mask: i32,
): void {
  const count = <usize>(width * height);
  // A smaller picture has no line between two others.
  if (count < 4 * stride) return;
  memory.fill(steps, 0, count);
  memory.fill(edges, 0, count);
  for (let i = stride; i < count - stride; i += 16) {
    const after = v128.load(samples + i + stride);
    const before = v128.load(samples + i - stride);
    v128.store(steps + i, v128.or(i8x16.sub_sat_u(after, before), i8x16.sub_sat_u(before, after)));
  }
  memory.fill(steps + count - stride, 0, stride);
  const needed = i8x16.splat(<i8>least);
  const one = i8x16.splat(1);
  const reach: usize = 2 * stride;
  for (let i = reach; i < count - reach; i += 16) {
    const at = steps + i;
    const step = v128.load(at);
    const near = i8x16.max_u(v128.load(at - stride), v128.load(at + stride));
    const far = i8x16.max_u(v128.load(at - reach), v128.load(at + reach));
    const isEdge = i8x16.ge_u(step, i8x16.max_u(needed, i8x16.max_u(near, far)));
    v128.store(edges + i, v128.and(isEdge, one));
  }
  memory.fill(edges + count - reach, 0, reach);
  if (stride == 1) clearSides(edges, width, height);
  const all = i8x16.splat(<i8>mask);
  const shared = count - stride;
  let i: usize = 0;
  for (; i + 16 <= shared; i += 16) {
    const edge = v128.or(v128.load(edges + i), v128.load(edges + i + stride));
    v128.store(seen + i, v128.and(v128.or(i8x16.shl(v128.load(seen + i), 1), edge), all));
  }
  for (; i < shared; i++) {
    const edge = load<u8>(edges + i) | load<u8>(edges + i + stride);
    store<u8>(seen + i, ((load<u8>(seen + i) << 1) | edge) & (<u8>mask));
  }
}

/** Clears the first two and the last two columns of a plane. */
function clearSides(plane: usize, width: i32, height: i32): void {
  for (let y = 0; y < height; y++) {
    const row = plane + <usize>(y * width);
    store<u16>(row, 0);
    store<u16>(row + <usize>(width - 2), 0);
  }
}

/**
 * For each line: the number of places with an edge in enough of the pictures, and the number of places and pictures with
 * one.
 * @param across,along strides to the next sample across and along the lines
 * @param staying,ever 32-bit numbers, one per line
 */
export function countLines(
  seen: usize,
  lines: i32,
  length: i32,
  across: usize,
  along: usize,
  needed: i32,
  staying: usize,
  ever: usize,
): void {
  for (let line = 0; line < lines; line++) {
    let at = seen + <usize>line * across;
    let stays = 0;
    let all = 0;
    for (let i = 0; i < length; i++, at += along) {
      const times = popcnt<i32>(load<u8>(at));
      all += times;
      stays += i32(times >= needed);
    }
    store<i32>(staying + ((<usize>line) << 2), stays);
    store<i32>(ever + ((<usize>line) << 2), all);
  }
}
