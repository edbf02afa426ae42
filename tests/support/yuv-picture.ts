import type { YuvImage } from "~/core/image/yuv-image";

/** A picture of the wanted size from what colour it has at each pixel, red, green and blue from 0 to 255. */
export function yuvPicture(
  width: number,
  height: number,
  colour: (x: number, y: number) => readonly [number, number, number],
): YuvImage {
  const luma = new Uint8ClampedArray(width * height);
  const blue = new Uint8ClampedArray((width * height) / 4);
  const red = new Uint8ClampedArray((width * height) / 4);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const [r, g, b] = colour(x, y);
      const value = 0.2126 * r + 0.7152 * g + 0.0722 * b;
      luma[y * width + x] = 16 + (219 * value) / 255;
      if (x % 2 || y % 2) continue;
      const at = ((y >> 1) * width) / 2 + (x >> 1);
      blue[at] = 128 + (224 * (b - value)) / (255 * 1.8556);
      red[at] = 128 + (224 * (r - value)) / (255 * 1.5748);
    }
  }
  const bytes = (plane: Uint8ClampedArray) => new Uint8Array(plane.buffer);
  return { width, height, luma: bytes(luma), blue: bytes(blue), red: bytes(red) };
}

/** A smooth random texture around 0, from −0.5 to 0.5: a lattice of values, interpolated. */
export function texture(x: number, y: number, size = 9): number {
  const lattice = (i: number, j: number) => {
    let mixed = Math.imul(i, 374761393) ^ Math.imul(j, 668265263);
    mixed = Math.imul(mixed ^ (mixed >>> 15), 2246822519);
    mixed = Math.imul(mixed ^ (mixed >>> 15), 3266489917);
    mixed = Math.imul(mixed ^ (mixed >>> 15), 1274126177);
    return ((mixed ^ (mixed >>> 16)) >>> 0) / 2 ** 32 - 0.5;
  };
  const i = Math.floor(x / size);
  const j = Math.floor(y / size);
  const u = x / size - i;
  const v = y / size - j;
  const top = lattice(i, j) + (lattice(i + 1, j) - lattice(i, j)) * u;
  const bottom = lattice(i, j + 1) + (lattice(i + 1, j + 1) - lattice(i, j + 1)) * u;
  return top + (bottom - top) * v;
}
