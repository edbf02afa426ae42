/** The inner loops of frame features, in AssemblyScript (`npm run build:kernels`). All counts are of 32 bits. */

/**
 * Counts a plane's values in a histogram, and sums them by cells of a grid.
 * @param values weight of each of the 256 values
 * @param bins of 16 values each
 * @param cell side of a cell, in samples; the width is a multiple of it
 */
export function tallyLuma(
  plane: usize,
  width: i32,
  height: i32,
  values: usize,
  bins: usize,
  cell: i32,
  sums: usize,
): void {
  const columns = width / cell;
  for (let y = 0; y < height; y++) {
    const row = sums + ((<usize>((y / cell) * columns)) << 2);
    for (let column = 0; column < columns; column++) {
      let sum = 0;
      for (let i = 0; i < cell; i++, plane++) {
        const value = <i32>load<u8>(values + <usize>load<u8>(plane));
        sum += value;
        const bin = bins + ((<usize>(value >> 4)) << 2);
        store<i32>(bin, load<i32>(bin) + 1);
      }
      const at = row + ((<usize>column) << 2);
      store<i32>(at, load<i32>(at) + sum);
    }
  }
}

/**
 * The same for two chroma planes together: a joint histogram in 8 × 8 bins of 32 values each way, and two sums per cell, of
 * blue and red.
 */
export function tallyChroma(
  blue: usize,
  red: usize,
  width: i32,
  height: i32,
  values: usize,
  bins: usize,
  cell: i32,
  sums: usize,
): void {
  const columns = width / cell;
  for (let y = 0; y < height; y++) {
    const row = sums + ((<usize>((y / cell) * columns)) << 3);
    for (let x = 0; x < width; x++, blue++, red++) {
      const cb = <i32>load<u8>(values + <usize>load<u8>(blue));
      const cr = <i32>load<u8>(values + <usize>load<u8>(red));
      const bin = bins + ((<usize>(((cr >> 5) << 3) + (cb >> 5))) << 2);
      store<i32>(bin, load<i32>(bin) + 1);
      const at = row + ((<usize>(x / cell)) << 3);
      store<i32>(at, load<i32>(at) + cb);
      store<i32>(at, load<i32>(at, 4) + cr, 4);
    }
  }
}
