/** The colours of a planar 4:2:0 frame in limited range, after ITU-R BT.709, with chroma interpolated where it is sited: left. */
export function rgbOfYuv(frame: Uint8Array, { width, height }: { width: number; height: number }): Uint8ClampedArray {
  const half = { width: Math.ceil(width / 2), height: Math.ceil(height / 2) };
  const plane = (k: number) => width * height + k * half.width * half.height;
  const chroma = (at: number, x: number, y: number): number => {
    const u = Math.min(half.width - 1, x / 2);
    const v = Math.max(0, Math.min(half.height - 1, (y - 0.5) / 2));
    const [i, j] = [Math.floor(u), Math.floor(v)];
    const sample = (di: number, dj: number) =>
      frame[at + Math.min(half.height - 1, j + dj) * half.width + Math.min(half.width - 1, i + di)]! - 128;
    const top = sample(0, 0) + (sample(1, 0) - sample(0, 0)) * (u - i);
    const bottom = sample(0, 1) + (sample(1, 1) - sample(0, 1)) * (u - i);
    return top + (bottom - top) * (v - j);
  };
  const rgb = new Uint8ClampedArray(3 * width * height);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const luma = (255 / 219) * (frame[y * width + x]! - 16);
      const blue = (255 / 224) * chroma(plane(0), x, y);
      const red = (255 / 224) * chroma(plane(1), x, y);
      rgb.set([luma + 1.5748 * red, luma - 0.1873 * blue - 0.4681 * red, luma + 1.8556 * blue], 3 * (y * width + x));
    }
  }
  return rgb;
}

/** Mean and largest difference of two pictures' values, where `counts` says so. */
export function difference(
  a: ArrayLike<number>,
  b: ArrayLike<number>,
  counts: (i: number) => boolean = () => true,
): { mean: number; largest: number } {
  let [sum, count, largest] = [0, 0, 0];
  for (let i = 0; i < a.length; i++) {
    if (!counts(i)) continue;
    const by = Math.abs(a[i]! - b[i]!);
    sum += by;
    count++;
    largest = Math.max(largest, by);
  }
  return { mean: sum / count, largest };
}
