import { describe, expect, test } from "@jest/globals";
import { fitIntoSquare, lumaOf, shrink, unfitBox } from "./rgb-image";

/** An image whose red rises to the right and whose green rises downwards. */
function ramp(width: number, height: number) {
  const data = new Uint8Array(width * height * 3);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++)
      data.set([(x * 255) / (width - 1), (y * 255) / (height - 1), 10], (y * width + x) * 3);
  }
  return { width, height, data };
}

describe("fitting into a square", () => {
  test("keeps proportions, leaves black beside, and can be taken back", () => {
    const image = ramp(640, 360);
    const out = new Float32Array(64 * 64 * 3);
    const fit = fitIntoSquare(image, { x: 0, y: 0, width: 640, height: 360 }, 64, out);
    expect(fit.scale).toBeCloseTo(0.1);
    expect(fit.offsetY).toBe(14);
    expect(out[0]).toBe(0);
    const at = (x: number, y: number) => out[(y * 64 + x) * 3]!;
    // A linear ramp stays the same ramp.
    expect(at(32, 32)).toBeCloseTo((255 * (32.5 * 10 - 0.5)) / 639, 0);
    const square = { x: 10, y: 20, width: 8, height: 6 };
    const back = unfitBox(square, fit);
    expect(back.x).toBeCloseTo(100);
    expect(back.y).toBeCloseTo((20 - fit.offsetY) * 10);
    expect(back.width).toBeCloseTo(80);
  });

  test("looks at a region only", () => {
    const out = new Float32Array(32 * 32 * 3);
    const fit = fitIntoSquare(ramp(640, 360), { x: 280, y: 0, width: 360, height: 360 }, 32, out);
    expect(unfitBox({ x: 0, y: 0, width: 32, height: 32 }, fit)).toEqual({ x: 280, y: 0, width: 360, height: 360 });
    expect(out[16 * 32 * 3]!).toBeGreaterThan(100);
  });
});

describe("shrinking", () => {
  test("is the mean of blocks", () => {
    const image = { width: 4, height: 2, data: Uint8Array.from({ length: 24 }, (_, i) => (i < 12 ? 0 : 100)) };
    expect([...shrink(image, 2, 1)]).toEqual([50, 50, 50, 50, 50, 50]);
  });

  test("repeats pixels of an image that is smaller than the grid", () => {
    const image = { width: 2, height: 1, data: Uint8Array.from([10, 10, 10, 200, 200, 200]) };
    const out = shrink(image, 4, 1);
    expect([out[0], out[3], out[6], out[9]]).toEqual([10, 10, 200, 200]);
  });
});

test("luma is Rec.709's", () => {
  expect(lumaOf(Uint8Array.from([255, 0, 0]))[0]).toBeCloseTo(0.2126 * 255);
});
