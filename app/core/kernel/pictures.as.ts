/**
 * The inner loops that bring pictures to another form, in AssemblyScript for WebAssembly SIMD (`npm run build:kernels`).
 * Whole vectors may be read and written beyond a buffer's end.
 */

/** Sums of two neighbours each of sixteen bytes. */
function pairs(at: usize): v128 {
  return i16x8.extadd_pairwise_i8x16_u(v128.load(at));
}

/** Half as many samples of a plane each way, each the mean of four. */
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

/** A part of a picture of 8 bits, 4:2:0 and limited range, and the colours it is to have. */
@unmanaged
class Colours {
  luma: usize;
  blue: usize;
  red: usize;
  /** Of the picture; even, as the part's left is. */
  stride: i32;
  left: i32;
  top: i32;
  width: i32;
  height: i32;
  to: usize;
  /** Pixels of a row of what is written, from one row to the next. */
  toStride: i32;
  /** From 0 to 255 to what is wanted. */
  scale: f32;
  offset: f32;
}

/** Red, green and blue of a pixel, in whole numbers from 0 to 255, as they are wanted. */
function colourOf(luma: i32, blue: i32, red: i32, scale: v128, offset: v128): v128 {
  const value = f32x4.splat(1.1644 * <f32>(luma - 16));
  const byRed = f32x4.mul(f32x4(1.7927, -0.5329, 0, 0), f32x4.splat(<f32>(red - 128)));
  const byBlue = f32x4.mul(f32x4(0, -0.2132, 2.1124, 0), f32x4.splat(<f32>(blue - 128)));
  const colour = f32x4.nearest(f32x4.add(value, f32x4.add(byRed, byBlue)));
  const clamped = f32x4.min(f32x4.max(colour, f32x4.splat(0)), f32x4.splat(255));
  return f32x4.add(f32x4.mul(clamped, scale), offset);
}

/**
 * Rec.709's colours of each pixel, as floats.
 *
 * @param plane values of a plane, where blue, green and red are to follow one another in planes; 0 where red, green and blue
 *   are to be interleaved
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
    for (let x = 0; x < job.width; x++, to += step) {
      const at = chroma + <usize>(x >> 1);
      const colour = colourOf(
        load<u8>(luma + <usize>x),
        load<u8>(job.blue + at),
        load<u8>(job.red + at),
        scale,
        offset,
      );
      if (plane > 0) {
        v128.store32_lane(to, colour, 2);
        v128.store32_lane(to + bytes, colour, 1);
        v128.store32_lane(to + 2 * bytes, colour, 0);
      } else {
        v128.store64_lane(to, colour, 0);
        v128.store32_lane(to, colour, 2, 8);
      }
    }
  }
}
