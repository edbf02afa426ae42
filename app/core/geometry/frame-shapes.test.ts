import { expect, test } from "@jest/globals";
import { FRAME_SHAPES, leastEnlargement, nameOfSize, resized, shapeOf, swapped } from "./frame-shapes";

const HD = { width: 1920, height: 1080 };

test("every usual size has the shape that it is listed under, and even sides", () => {
  for (const shape of FRAME_SHAPES) {
    for (const size of shape.sizes) {
      expect([shapeOf(size)?.name, size.width % 2, size.height % 2]).toEqual([shape.name, 0, 0]);
    }
  }
  expect(nameOfSize({ width: 720, height: 1280 })).toBe("Vertical 9:16");
  expect(nameOfSize({ width: 1000, height: 1280 })).toBe("1000 × 1280");
});

test("a side is typed in; the other follows where the ratio is locked, and both stay even", () => {
  expect(resized(HD, "width", 1281, null)).toEqual({ width: 1282, height: 1080 });
  expect(resized(HD, "width", 1281, 16 / 9)).toEqual({ width: 1282, height: 722 });
  expect(resized(HD, "height", 720, 16 / 9)).toEqual({ width: 1280, height: 720 });
  expect(swapped(HD)).toEqual({ width: 1080, height: 1920 });
});

test("the enlargement is what the largest window needs, whichever way the shapes go", () => {
  expect(leastEnlargement(HD, { width: 1080, height: 1920 })).toBeCloseTo(1920 / 1080);
  expect(leastEnlargement(HD, HD)).toBe(1);
  expect(leastEnlargement({ width: 1080, height: 1920 }, HD)).toBeCloseTo(1920 / 1080);
  expect(leastEnlargement({ width: 3840, height: 2160 }, { width: 1080, height: 1350 })).toBeCloseTo(0.625);
});
