import { describe, expect, test } from "@jest/globals";
import { cropYuv, FULL_CHROMA, FULL_LUMA, rgbOf, yuvImage } from "./yuv-image";

const SIZE = { width: 4, height: 4 };
/** Luma counts up from 16; colour differences are their own numbers. */
const data = Uint8Array.from({ length: 24 }, (_, i) => (i < 16 ? 16 + i : i < 20 ? 100 + i : 140 + i));

describe("planes", () => {
  test("are read from a buffer without a copy", () => {
    const image = yuvImage(data, SIZE);
    expect([...image.luma.subarray(0, 3)]).toEqual([16, 17, 18]);
    expect([...image.blue]).toEqual([116, 117, 118, 119]);
    expect([...image.red]).toEqual([160, 161, 162, 163]);
    expect(image.luma.buffer).toBe(data.buffer);
  });

  test("are cropped below a row and left of a column", () => {
    const { luma, blue, red } = cropYuv(yuvImage(data, SIZE), 2, { width: 2, height: 2 });
    expect([...luma]).toEqual([24, 25, 28, 29]);
    expect([...blue]).toEqual([118]);
    expect([...red]).toEqual([162]);
  });
});

test("limited range becomes full range", () => {
  expect([FULL_LUMA[0], FULL_LUMA[16], FULL_LUMA[235], FULL_LUMA[255]]).toEqual([0, 0, 255, 255]);
  expect([FULL_CHROMA[16], FULL_CHROMA[128], FULL_CHROMA[240]]).toEqual([0, 128, 255]);
});

test("colours are Rec.709's", () => {
  // Pure red in limited range: Y 63, Cb 102, Cr 240.
  const image = yuvImage(Uint8Array.from([63, 63, 63, 63, 102, 240]), { width: 2, height: 2 });
  const rgb = rgbOf(image);
  expect(rgb).toHaveLength(12);
  expect(rgb[9]).toBeGreaterThan(252);
  expect(rgb[10]).toBeLessThan(3);
  expect(rgb[11]).toBeLessThan(3);
});
