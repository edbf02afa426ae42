/** The inner loop of the detection of bars, in AssemblyScript (`npm run build:kernels`). */

/**
 * Means of the segments of each row and of each column of a plane, as floats.
 *
 * @param begins where each of the segments of a row begins, and then where the last one ends, as 32-bit numbers
 * @param bands the same for the segments of a column
 * @param rows,columns `count` means for each row, and for each column
 * @param sums room for a 32-bit number for each column
 */
export function segmentMeans(
  plane: usize,
  width: i32,
  begins: usize,
  bands: usize,
  count: i32,
  rows: usize,
  columns: usize,
  sums: usize,
): void {
  for (let band = 0; band < count; band++) {
    const top = load<i32>(bands + ((<usize>band) << 2));
    const bottom = load<i32>(bands + ((<usize>band) << 2), 4);
    memory.fill(sums, 0, (<usize>width) << 2);
    for (let y = top; y < bottom; y++) {
      const row = plane + <usize>(y * width);
      for (let segment = 0; segment < count; segment++) {
        const start = load<i32>(begins + ((<usize>segment) << 2));
        const end = load<i32>(begins + ((<usize>segment) << 2), 4);
        let inRow = 0;
        for (let x = start; x < end; x++) {
          const value = <i32>load<u8>(row + <usize>x);
          inRow += value;
          const column = sums + ((<usize>x) << 2);
          store<i32>(column, load<i32>(column) + value);
        }
        store<f32>(rows + ((<usize>(y * count + segment)) << 2), <f32>(<f64>inRow / <f64>(end - start)));
      }
    }
    for (let x = 0; x < width; x++) {
      const mean = <f64>load<i32>(sums + ((<usize>x) << 2)) / <f64>(bottom - top);
      store<f32>(columns + ((<usize>(x * count + band)) << 2), <f32>mean);
    }
  }
}
