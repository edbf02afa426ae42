/** The inner loops of rendering, in AssemblyScript for WebAssembly SIMD (`npm run build:kernels`). */

/** Eight samples of 8 bits, or of 10 bits in two bytes each, as 16-bit values. */
function eightOf<T>(at: usize): v128 {
  return sizeof<T>() == 1 ? v128.load_ext<u8>(at) : v128.load(at);
}

/**
 * A separable resampling of one plane with given weights, which are 16-bit with 14 fractional bits and sum to 1 for each
 * output pixel. Strides are in samples. The row buffer and the source have 16 spare bytes at their ends, since loads are of
 * eight samples.
 */
@unmanaged
class Resampling {
  source: usize;
  sourceStride: i32;
  target: usize;
  targetStride: i32;
  targetWidth: i32;
  targetHeight: i32;
  firstColumn: i32;
  columns: i32;
  hStarts: usize;
  hWeights: usize;
  /** A multiple of 8. */
  hTaps: i32;
  vStarts: usize;
  vWeights: usize;
  /** Even. */
  vTaps: i32;
  row: usize;
}

/**
 * For each output row, `vTaps` source rows are mixed into a row of 16-bit values with 6 fractional bits, or 4 for 10-bit
 * samples; from that row, each output pixel is the sum of `hTaps` neighbours.
 */
function resample<T>(plane: Resampling): void {
  const sourceStride = plane.sourceStride;
  const columns = plane.columns;
  const hStarts = plane.hStarts;
  const hWeights = plane.hWeights;
  const hTaps = plane.hTaps;
  const vTaps = plane.vTaps;
  const row = plane.row;
  // n-bit value × 14-bit weight → 14 bits in the row; then × 14-bit weight → whole.
  const rowShift = sizeof<T>() == 1 ? 8 : 10;
  const pixelShift = sizeof<T>() == 1 ? 20 : 18;
  const most = sizeof<T>() == 1 ? 255 : 1023;
  const roundRow = i32x4.splat(1 << (rowShift - 1));
  const roundPixel = 1 << (pixelShift - 1);
  const line = <usize>sourceStride * sizeof<T>();
  for (let y = 0; y < plane.targetHeight; y++) {
    const first = load<i32>(plane.vStarts + ((<usize>y) << 2)) * sourceStride + plane.firstColumn;
    const top = plane.source + <usize>first * sizeof<T>();
    const weights = plane.vWeights + ((<usize>(y * vTaps)) << 1);
    for (let x = 0; x < columns; x += 8) {
      let low = roundRow;
      let high = roundRow;
      let above = top + <usize>x * sizeof<T>();
      for (let tap = 0; tap < vTaps; tap += 2) {
        // Two rows interleaved, so that one dot product applies both their weights.
        const pair = v128.load32_splat(weights + ((<usize>tap) << 1));
        const a = eightOf<T>(above);
        const b = eightOf<T>(above + line);
        low = i32x4.add(low, i32x4.dot_i16x8_s(i16x8.shuffle(a, b, 0, 8, 1, 9, 2, 10, 3, 11), pair));
        high = i32x4.add(high, i32x4.dot_i16x8_s(i16x8.shuffle(a, b, 4, 12, 5, 13, 6, 14, 7, 15), pair));
        above += line << 1;
      }
      v128.store(
        row + ((<usize>x) << 1),
        i16x8.narrow_i32x4_s(i32x4.shr_s(low, rowShift), i32x4.shr_s(high, rowShift)),
      );
    }
    const out = plane.target + <usize>(y * plane.targetStride) * sizeof<T>();
    for (let x = 0; x < plane.targetWidth; x++) {
      const start = row + ((<usize>load<i32>(hStarts + ((<usize>x) << 2))) << 1);
      const taps = hWeights + ((<usize>(x * hTaps)) << 1);
      let sum = i32x4.dot_i16x8_s(v128.load(start), v128.load(taps));
      for (let tap = 8; tap < hTaps; tap += 8) {
        const more = i32x4.dot_i16x8_s(v128.load(start + ((<usize>tap) << 1)), v128.load(taps + ((<usize>tap) << 1)));
        sum = i32x4.add(sum, more);
      }
      sum = i32x4.add(sum, i32x4.shuffle(sum, sum, 2, 3, 0, 1));
      const total = i32x4.extract_lane(sum, 0) + i32x4.extract_lane(sum, 1);
      const value = (total + roundPixel) >> pixelShift;
      store<T>(out + <usize>x * sizeof<T>(), <T>max(0, min(most, value)));
    }
  }
}

/** x / 255, rounded, for eight values up to 255 × 255. */
function by255(x: v128): v128 {
  const rounded = i16x8.add(x, i16x8.splat(128));
  return i16x8.shr_u(i16x8.add(rounded, i16x8.shr_u(rounded, 8)), 8);
}

/** x / 255, rounded, for four values up to 255 × 1023: divided by 65536 / 257, which is 255.004. */
function wideBy255(x: v128): v128 {
  return i32x4.shr_u(i32x4.add(i32x4.mul(x, i32x4.splat(257)), i32x4.splat(32768)), 16);
}

/** The rest of eight 10-bit samples below, with four times as much over it; `left` and `over` are of 8 bits. */
function mixed10(below: v128, left: v128, over: v128): v128 {
  const low = wideBy255(i32x4.extmul_low_i16x8_u(below, left));
  const high = wideBy255(i32x4.extmul_high_i16x8_u(below, left));
  return i16x8.min_u(i16x8.add(i16x8.narrow_i32x4_u(low, high), i16x8.shl(over, 2)), i16x8.splat(1023));
}

/**
 * Samples laid over a plane: each is `made` with the rest of the plane by `cover`, both times `opacity`. `made` is
 * premultiplied by `cover`; both are bytes, also over 10-bit samples. Up to 8 samples beyond the end of the plane are read,
 * and written unchanged.
 */
@unmanaged
class Blending {
  target: usize;
  /** In samples. */
  targetStride: i32;
  made: usize;
  cover: usize;
  /** Bytes per row of both, a multiple of 8; those beyond the width are 0. */
  stride: i32;
  height: i32;
  /** 0 to 255. */
  opacity: i32;
}

function blend<T>(plane: Blending): void {
  let target = plane.target;
  let made = plane.made;
  let cover = plane.cover;
  const stride = plane.stride;
  const share = i16x8.splat(<i16>plane.opacity);
  const whole = i16x8.splat(255);
  for (let y = 0; y < plane.height; y++) {
    for (let x = 0; x < stride; x += 8) {
      const covered = v128.load_ext<u8>(cover + <usize>x);
      // Most of the area around letters is empty.
      if (!v128.any_true(covered)) continue;
      const at = target + <usize>x * sizeof<T>();
      const left = i16x8.sub(whole, by255(i16x8.mul(covered, share)));
      const over = by255(i16x8.mul(v128.load_ext<u8>(made + <usize>x), share));
      if (sizeof<T>() == 1) {
        const sum = i16x8.add(over, by255(i16x8.mul(v128.load_ext<u8>(at), left)));
        v128.store64_lane(at, i8x16.narrow_i16x8_u(sum, sum), 0);
      } else v128.store(at, mixed10(v128.load(at), left, over));
    }
    target += <usize>plane.targetStride * sizeof<T>();
    made += <usize>stride;
    cover += <usize>stride;
  }
}

export function resample8(plane: Resampling): void {
  resample<u8>(plane);
}

export function resample10(plane: Resampling): void {
  resample<u16>(plane);
}

export function blend8(plane: Blending): void {
  blend<u8>(plane);
}

export function blend10(plane: Blending): void {
  blend<u16>(plane);
}
