/**
 * The inner loops that scale and convert pictures, in AssemblyScript for WebAssembly SIMD (`npm run build:kernels`). Whole
 * vectors may be read and written beyond a buffer's end.
 */

/** Sums of two neighbours each of sixteen bytes. */
function pairs(at: usize): v128 {
  return i16x8.extadd_pairwise_i8x16_u(v128.load(at));
}

/** A plane at half the size each way, each sample the mean of four. */
export function halve(samples: usize, stride: i32, to: usize, width: i32, height: i32): void {
  const two = i16x8.splat(2);
  for (let y = 0; y < height; y++) {
    const above = samples + <usize>(2 * y * stride);
    const row = to + <usize>(y * width);
    for (let x = 0; x < width; x += 8) {
      const at = above + <usize>(2 * x);
      const sum = i16x8.add(pairs(at), pairs(at + <usize>stride));
      const means = i16x8.shr_u(i16x8.add(sum, two), 2);
      v128.store64_lane(row + <usize>x, i8x16.narrow_i16x8_u(means, means), 0);
    }
  }
}

/** A part of an 8-bit picture, 4:2:0 in limited range, and the range of the colours wanted. */
@unmanaged
class Colours {
  luma: usize;
  blue: usize;
  red: usize;
  /** Row stride of the picture; even, as are the left edge and the width of the part. */
  stride: i32;
  left: i32;
  top: i32;
  width: i32;
  height: i32;
  to: usize;
  /** Row stride of the output, in pixels. */
  toStride: i32;
  /** Maps 0 to 255 to the range wanted. */
  scale: f32;
  offset: f32;
}

/** Rounded to whole numbers from 0 to 255, and mapped to the range wanted. */
function asWanted(colour: v128, scale: v128, offset: v128): v128 {
  const whole = f32x4.nearest(colour);
  const clamped = f32x4.min(f32x4.max(whole, f32x4.splat(0)), f32x4.splat(255));
  return f32x4.add(f32x4.mul(clamped, scale), offset);
}

/** Excess of each of four bytes over a value. */
function above(bytes: v128, value: i32): v128 {
  return f32x4.convert_i32x4_s(i32x4.sub(bytes, i32x4.splat(value)));
}

/** Four bytes, one in each lane. */
function fourOf(at: usize): v128 {
  return i32x4.extend_low_i16x8_u(i16x8.extend_low_i8x16_u(v128.load32_zero(at)));
}

/** Two bytes, each in two lanes: the chroma of four pixels. */
function twiceTwoOf(at: usize): v128 {
  return i8x16.swizzle(v128.load16_splat(at), i8x16(0, -1, -1, -1, 0, -1, -1, -1, 1, -1, -1, -1, 1, -1, -1, -1));
}

/** Writes one colour of four pixels, or of the first two. */
function storePlane(to: usize, values: v128, all: bool): void {
  if (all) v128.store(to, values);
  else v128.store64_lane(to, values, 0);
}

/** Writes the colours of four pixels, or of the first two, interleaved. */
function interleave(to: usize, red: v128, green: v128, blue: v128, all: bool): void {
  const first = v128.shuffle<i32>(red, green, 0, 4, 1, 5);
  const second = v128.shuffle<i32>(red, green, 2, 6, 3, 7);
  const middle = v128.shuffle<i32>(v128.shuffle<i32>(first, blue, 3, 5, 3, 5), second, 0, 1, 4, 5);
  v128.store(to, v128.shuffle<i32>(first, blue, 0, 1, 4, 2));
  if (!all) return v128.store64_lane(to, middle, 0, 16);
  v128.store(to, middle, 16);
  const last = v128.shuffle<i32>(second, blue, 2, 3, 6, 7);
  v128.store(to, v128.shuffle<i32>(last, last, 2, 0, 1, 3), 32);
}

/**
 * The Rec.709 colours of each pixel, as floats.
 * @param plane values per plane, for consecutive planes of blue, green and red; 0 for interleaved red, green and blue
 */
export function writeColours(job: Colours, plane: i32): void {
  const scale = f32x4.splat(job.scale);
  const offset = f32x4.splat(job.offset);
  const bytes = (<usize>plane) << 2;
  const step: usize = plane > 0 ? 4 : 12;
  for (let y = 0; y < job.height; y++) {
    const row = job.top + y;
    const luma = job.luma + <usize>(row * job.stride + job.left);
    const chroma = <usize>((row >> 1) * (job.stride >> 1) + (job.left >> 1));
    let to = job.to + <usize>(y * job.toStride) * step;
    for (let x = 0; x < job.width; x += 4, to += 4 * step) {
      const at = chroma + <usize>(x >> 1);
      const value = f32x4.mul(f32x4.splat(1.1644), above(fourOf(luma + <usize>x), 16));
      const byBlue = above(twiceTwoOf(job.blue + at), 128);
      const byRed = above(twiceTwoOf(job.red + at), 128);
      const greenBy = f32x4.add(f32x4.mul(f32x4.splat(-0.5329), byRed), f32x4.mul(f32x4.splat(-0.2132), byBlue));
      const red = asWanted(f32x4.add(value, f32x4.mul(f32x4.splat(1.7927), byRed)), scale, offset);
      const green = asWanted(f32x4.add(value, greenBy), scale, offset);
      const blue = asWanted(f32x4.add(value, f32x4.mul(f32x4.splat(2.1124), byBlue)), scale, offset);
      // As its width is even, two are left over or none.
      const all = x + 4 <= job.width;
      if (plane > 0) {
        storePlane(to, blue, all);
        storePlane(to + bytes, green, all);
        storePlane(to + 2 * bytes, red, all);
      } else interleave(to, red, green, blue, all);
    }
  }
}
