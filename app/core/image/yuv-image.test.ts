import { describe, expect, test } from "@jest/globals";
import { cropYuv, FULL_CHROMA, FULL_LUMA, halveYuv, yuvImage } from "./yuv-image";

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

test("half a picture is made of the means of four, in every plane", () => {
  const size = { width: 24, height: 8 };
  const image = yuvImage(
    Uint8Array.from({ length: 288 }, (_, i) => (i * 37) % 256),
    size,
  );
  const half = halveYuv(image);
  expect([half.width, half.height, half.luma.length, half.red.length]).toEqual([12, 4, 48, 12]);
  const mean = (plane: Uint8Array, stride: number, x: number, y: number) => {
    const at = 2 * (y * stride + x);
    return Math.round((plane[at]! + plane[at + 1]! + plane[at + stride]! + plane[at + stride + 1]!) / 4);
  };
  for (let y = 0; y < 4; y++)
    for (let x = 0; x < 12; x++) expect(half.luma[12 * y + x]).toBe(mean(image.luma, 24, x, y));
  for (let x = 0; x < 6; x++) expect(half.blue[6 + x]).toBe(mean(image.blue, 12, x, 1));
});
