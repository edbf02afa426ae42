/** The inner loops of the detection of independent motion, in AssemblyScript (`npm run build:kernels`). */

/**
 * Differences of a picture from the one before, compensated for the camera's motion, 32-bit floats; 0 where that lay
 * outside the picture.
 * @param a with `b`, `tx` and `ty` the similarity that maps this picture to the one before
 */
export function differencesFrom(
  before: usize,
  now: usize,
  width: i32,
  height: i32,
  a: f64,
  b: f64,
  tx: f64,
  ty: f64,
  out: usize,
): void {
  for (let y = 0; y < height; y++) {
    let u = tx - b * <f64>y;
    let v = ty + a * <f64>y;
    for (let x = 0; x < width; x++, now++, out += 4, u += a, v += b) {
      store<f32>(out, 0);
      if (!(u >= 0 && v >= 0 && u < <f64>(width - 1) && v < <f64>(height - 1))) continue;
      const u0 = <i32>u;
      const v0 = <i32>v;
      const fu = u - <f64>u0;
      const fv = v - <f64>v0;
      const corner = before + <usize>(v0 * width + u0);
      const below = corner + <usize>width;
      const top = mix(<f64>load<u8>(corner), <f64>load<u8>(corner, 1), fu);
      const bottom = mix(<f64>load<u8>(below), <f64>load<u8>(below, 1), fu);
      store<f32>(out, <f32>(<f64>load<u8>(now) - mix(top, bottom, fv)));
    }
  }
}

function mix(from: f64, to: f64, share: f64): f64 {
  return from + (to - from) * share;
}

/**
 * How far each cell of a picture moved independently, in samples: differences beyond noise, divided by the gradient there,
 * 32-bit floats.
 * @param cell side of a cell, in samples
 * @param noise differences below which there is none
 * @param floor smallest gradient assumed for a cell
 */
export function moveCells(
  now: usize,
  differences: usize,
  width: i32,
  height: i32,
  cell: i32,
  columns: i32,
  rows: i32,
  noise: f64,
  floor: f64,
  movement: usize,
): void {
  for (let row = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++, movement += 4) {
      let moved: f64 = 0;
      let steepness: f64 = 0;
      const left = max(1, column * cell);
      const right = min(width - 1, (column + 1) * cell);
      const bottom = min(height - 1, (row + 1) * cell);
      for (let y = max(1, row * cell); y < bottom; y++) {
        for (let at = y * width + left; at < y * width + right; at++) {
          const sample = now + <usize>at;
          const gx = (<f64>load<u8>(sample, 1) - <f64>load<u8>(sample - 1)) / 2;
          const gy = (<f64>load<u8>(sample + <usize>width) - <f64>load<u8>(sample - <usize>width)) / 2;
          const squared = gx * gx + gy * gy;
          steepness += squared;
          const clear = <f64>abs(load<f32>(differences + ((<usize>at) << 2))) - noise;
          if (clear > 0) moved += clear * Math.sqrt(squared);
        }
      }
      store<f32>(movement, <f32>(moved / Math.max(floor, steepness)));
    }
  }
}
