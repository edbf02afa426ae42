import { clamped } from "../numbers/clamped";
import { expect, test } from "@jest/globals";
import { wholeOf } from "../geometry/box";
import { writeInterleaved, writePlanes } from "./colours";
import { yuvImage } from "./yuv-image";

const PLAIN = { scale: 1, offset: 0 };

test("colours are Rec.709's", () => {
  // Pure red in limited range: Y 63, Cb 102, Cr 240.
  const image = yuvImage(Uint8Array.from([63, 63, 63, 63, 102, 240]), { width: 2, height: 2 });
  const rgb = new Float32Array(12);
  writeInterleaved(image, wholeOf(image), PLAIN, rgb);
  for (let pixel = 0; pixel < 4; pixel++) {
    expect(rgb[3 * pixel]).toBeGreaterThan(252);
    expect(rgb[3 * pixel + 1]).toBeLessThan(3);
    expect(rgb[3 * pixel + 2]).toBeLessThan(3);
  }
});

/** Luma counts up along rows; the left half is blue, the right half red. */
const PICTURE = { width: 8, height: 4 };
const image = yuvImage(
  Uint8Array.from([
    ...Array.from({ length: 32 }, (_, i) => 60 + i),
    180,
    180,
    110,
    110,
    180,
    180,
    110,
    110,
    110,
    110,
    180,
    180,
    110,
    110,
    180,
    180,
  ]),
  PICTURE,
);

/** One pixel by the formula. */
function expected(x: number, y: number): number[] {
  const value = 1.1644 * (60 + 8 * y + x - 16);
  const [b, r] = x < 4 ? [52, -18] : [-18, 52];
  return [value + 1.7927 * r, value - 0.2132 * b - 0.5329 * r, value + 2.1124 * b].map((of) =>
    clamped(Math.round(of), 0, 255),
  );
}

test("those of a part are written, and black where it reaches beyond the picture", () => {
  const part = { x: 2, y: 2, width: 8, height: 4 };
  const rgb = new Float32Array(3 * 8 * 4).fill(-7);
  writeInterleaved(image, part, { scale: 2, offset: 1 }, rgb);
  for (let y = 0; y < 4; y++) {
    for (let x = 0; x < 8; x++) {
      const inside = y < 2 && x < 6;
      const wanted = inside ? expected(x + 2, y + 2).map((of) => 2 * of + 1) : [1, 1, 1];
      expect([...rgb.subarray(3 * (8 * y + x), 3 * (8 * y + x) + 3)]).toEqual(wanted);
    }
  }
});

test("planes are blue, green and red", () => {
  const planes = new Float32Array(3 * 32);
  writePlanes(image, wholeOf(PICTURE), PLAIN, planes);
  for (let y = 0; y < 4; y++) {
    for (let x = 0; x < 8; x++) {
      const at = 8 * y + x;
      expect([planes[64 + at], planes[32 + at], planes[at]]).toEqual(expected(x, y));
    }
  }
});
