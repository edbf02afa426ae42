import { describe, expect, test } from "@jest/globals";
import { Backdrop, blur, blurRadius, reducedSize } from "./backdrop";
import { yuvOf } from "./colour";

describe("a blur", () => {
  const size = { width: 41, height: 31 };
  const point = () => {
    const samples = new Uint8Array(size.width * size.height).fill(40);
    for (let y = 13; y < 18; y++) samples.fill(240, y * size.width + 18, y * size.width + 23);
    return samples;
  };

  test("leaves an even ground as it is, and spreads what stands out evenly to all sides", () => {
    const even = new Uint8Array(size.width * size.height).fill(77);
    blur(even, size, 3);
    expect(new Set(even)).toEqual(new Set([77]));
    const spread = point();
    blur(spread, size, 2);
    const at = (x: number, y: number) => spread[y * size.width + x]!;
    expect(at(20, 15)).toBeLessThan(200);
    expect(at(14, 15)).toBeGreaterThan(40);
    expect([at(20 - 6, 15), at(20, 15 - 6), at(20, 15 + 6)]).toEqual([at(20 + 6, 15), at(20 + 6, 15), at(20 + 6, 15)]);
    expect(at(2, 15)).toBe(40);
  });

  test("blurs each channel by itself", () => {
    const alone = point();
    blur(alone, size, 2);
    const four = new Uint8ClampedArray(4 * alone.length).fill(255);
    point().forEach((value, i) => (four[4 * i + 1] = value));
    blur(four, size, 2, 4);
    expect([...alone]).toEqual(Array.from(alone, (_, i) => four[4 * i + 1]!));
    expect(four[0]).toBe(255);
  });

  test("is wider the stronger it is, and the same share of any frame", () => {
    expect([0, 50, 100].map(blurRadius)).toEqual([2, 8, 12]);
    expect(reducedSize({ width: 1080, height: 1920 })).toEqual({ width: 136, height: 240 });
    expect(reducedSize({ width: 180, height: 101 })).toEqual({ width: 180, height: 102 });
  });
});

test("colours are those of Rec.709 in limited range", () => {
  expect(yuvOf("#000000").map(Math.round)).toEqual([16, 128, 128]);
  expect(yuvOf("#ffffff").map(Math.round)).toEqual([235, 128, 128]);
  expect(yuvOf("#ff0000").map(Math.round)).toEqual([63, 102, 240]);
  expect(Backdrop.safeParse({ kind: "colour", colour: "red" }).success).toBe(false);
});
