/** The inner loops of rendering, in AssemblyScript for WebAssembly SIMD (`npm run build:kernel`). */

/**
 * A separable resampling of one 8-bit plane with given weights.
 *
 * For each output row, `vTaps` source rows are mixed into a row of 16-bit values with 6 fractional bits; from
 * that row, each output pixel is the sum of `hTaps` neighbours. Weights are 16-bit with 14 fractional bits and
 * sum to 1 for each output pixel. `vTaps` is even, `hTaps` a multiple of 8. The row buffer and the source have
 * 16 bytes to spare at their ends, since loads go eight at a time.
 */
export function resamplePlane(
  source: usize,
  sourceStride: i32,
  target: usize,
  targetStride: i32,
  targetWidth: i32,
  targetHeight: i32,
  firstColumn: i32,
  columns: i32,
  hStarts: usize,
  hWeights: usize,
  hTaps: i32,
  vStarts: usize,
  vWeights: usize,
  vTaps: i32,
  row: usize,
): void {
  // 8-bit value × 14-bit weight → 6 fractional bits: shift by 8; then × 14-bit weight → whole: shift by 20.
  const roundRow = i32x4.splat(1 << 7);
  const roundPixel = 1 << 19;
  for (let y = 0; y < targetHeight; y++) {
    const top = source + <usize>(load<i32>(vStarts + ((<usize>y) << 2)) * sourceStride + firstColumn);
    const weights = vWeights + ((<usize>(y * vTaps)) << 1);
    for (let x = 0; x < columns; x += 8) {
      let low = roundRow;
      let high = roundRow;
      let above = top + <usize>x;
      for (let tap = 0; tap < vTaps; tap += 2) {
        // Two rows interleaved, so that one dot product applies both their weights.
        const pair = v128.load32_splat(weights + ((<usize>tap) << 1));
        const a = v128.load_ext<u8>(above);
        const b = v128.load_ext<u8>(above + <usize>sourceStride);
        low = i32x4.add(low, i32x4.dot_i16x8_s(i16x8.shuffle(a, b, 0, 8, 1, 9, 2, 10, 3, 11), pair));
        high = i32x4.add(high, i32x4.dot_i16x8_s(i16x8.shuffle(a, b, 4, 12, 5, 13, 6, 14, 7, 15), pair));
        above += <usize>(sourceStride << 1);
      }
      v128.store(row + ((<usize>x) << 1), i16x8.narrow_i32x4_s(i32x4.shr_s(low, 8), i32x4.shr_s(high, 8)));
    }
    const out = target + <usize>(y * targetStride);
    for (let x = 0; x < targetWidth; x++) {
      const start = row + ((<usize>load<i32>(hStarts + ((<usize>x) << 2))) << 1);
      const taps = hWeights + ((<usize>(x * hTaps)) << 1);
      let sum = i32x4.dot_i16x8_s(v128.load(start), v128.load(taps));
      for (let tap = 8; tap < hTaps; tap += 8) {
        const more = i32x4.dot_i16x8_s(v128.load(start + ((<usize>tap) << 1)), v128.load(taps + ((<usize>tap) << 1)));
        sum = i32x4.add(sum, more);
      }
      sum = i32x4.add(sum, i32x4.shuffle(sum, sum, 2, 3, 0, 1));
      const total = i32x4.extract_lane(sum, 0) + i32x4.extract_lane(sum, 1);
      const value = (total + roundPixel) >> 20;
      store<u8>(out + <usize>x, <u8>max(0, min(255, value)));
    }
  }
}

/** x / 255, rounded, of eight values up to 255 × 255. */
function by255(x: v128): v128 {
  const rounded = i16x8.add(x, i16x8.splat(128));
  return i16x8.shr_u(i16x8.add(rounded, i16x8.shr_u(rounded, 8)), 8);
}

/**
 * Lays samples over a plane of bytes: each is `made` with what is left of the plane by `cover`, both times `opacity`.
 *
 * `made` is premultiplied by `cover`; both have `stride` bytes a row, a multiple of 8, of which those beyond the width are 0.
 * Up to 8 bytes beyond the end of the plane are read, and written as they were. `opacity` is 0 to 255.
 */
export function blendPlane(
  target: usize,
  targetStride: i32,
  made: usize,
  cover: usize,
  stride: i32,
  height: i32,
  opacity: i32,
): void {
  const share = i16x8.splat(<i16>opacity);
  const whole = i16x8.splat(255);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < stride; x += 8) {
      const covered = v128.load_ext<u8>(cover + <usize>x);
      // Most of what is around letters is empty.
      if (!v128.any_true(covered)) continue;
      const at = target + <usize>x;
      const left = i16x8.sub(whole, by255(i16x8.mul(covered, share)));
      const over = by255(i16x8.mul(v128.load_ext<u8>(made + <usize>x), share));
      const sum = i16x8.add(over, by255(i16x8.mul(v128.load_ext<u8>(at), left)));
      v128.store64_lane(at, i8x16.narrow_i16x8_u(sum, sum), 0);
    }
    target += <usize>targetStride;
    made += <usize>stride;
    cover += <usize>stride;
  }
}
