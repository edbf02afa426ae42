/** The inner loop of block matching, in AssemblyScript for WebAssembly SIMD (`npm run build:kernels`). */

/** Sum of products of two rows of 16-bit values. */
function dot(a: usize, b: usize, count: i32): i32 {
  let sums = i32x4.splat(0);
  let i = 0;
  for (; i + 8 <= count; i += 8, a += 16, b += 16) {
    sums = i32x4.add(sums, i32x4.dot_i16x8_s(v128.load(a), v128.load(b)));
  }
  let sum =
    i32x4.extract_lane(sums, 0) +
    i32x4.extract_lane(sums, 1) +
    i32x4.extract_lane(sums, 2) +
    i32x4.extract_lane(sums, 3);
  for (; i < count; i++, a += 2, b += 2) sum += <i32>load<i16>(a) * <i32>load<i16>(b);
  return sum;
}

/**
 * Sums of products of a region of one plane with the region of another at an offset of (dx, dy), in their overlap, for all
 * shifts from the least to the most: in row-major order of shifts, as 32-bit numbers.
 * @param a,b planes of one size, of 16-bit values
 */
export function shiftedProducts(
  a: usize,
  b: usize,
  columns: i32,
  rows: i32,
  x: i32,
  y: i32,
  width: i32,
  height: i32,
  leastX: i32,
  mostX: i32,
  leastY: i32,
  mostY: i32,
  to: usize,
): void {
  for (let dy = leastY; dy <= mostY; dy++) {
    const top = max(y, -dy);
    const bottom = min(y + height, rows - dy);
    for (let dx = leastX; dx <= mostX; dx++, to += 4) {
      const left = max(x, -dx);
      const right = min(x + width, columns - dx);
      let sum = 0;
      for (let row = top; row < bottom; row++) {
        const from = a + ((<usize>((row + dy) * columns + left + dx)) << 1);
        sum += dot(from, b + ((<usize>(row * columns + left)) << 1), right - left);
      }
      store<i32>(to, sum);
    }
  }
}
