import { describe, expect, test } from "@jest/globals";
import { boxContains, boxIou, clipBox, intersectionArea, mixBoxes, wholeOf } from "./box";
import { centreBounds, centredWindow, clampWindow, largestWindowHeight, windowBox } from "./crop-window";

const HD = { width: 1920, height: 1080 };
const box = (x: number, y: number, width: number, height: number) => ({ x, y, width, height });

describe("boxes", () => {
  test("overlap", () => {
    expect(intersectionArea(box(0, 0, 10, 10), box(5, 5, 10, 10))).toBe(25);
    expect(boxIou(box(0, 0, 10, 10), box(0, 0, 10, 10))).toBe(1);
    expect(boxIou(box(0, 0, 10, 10), box(5, 0, 10, 10))).toBeCloseTo(1 / 3);
    expect(boxIou(box(0, 0, 10, 10), box(20, 0, 10, 10))).toBe(0);
  });

  test("containment has a tolerance", () => {
    expect(boxContains(box(0, 0, 10, 10), box(-0.4, 0, 5, 5))).toBe(false);
    expect(boxContains(box(0, 0, 10, 10), box(-0.4, 0, 5, 5), 0.5)).toBe(true);
  });

  test("clipping and mixing", () => {
    expect(clipBox(box(-10, 5, 30, 10), HD)).toEqual(box(0, 5, 20, 10));
    expect(clipBox(box(2000, 5, 30, 10), HD).width).toBe(0);
    expect(mixBoxes(box(0, 0, 10, 10), box(10, 20, 30, 10), 0.5)).toEqual(box(5, 10, 20, 10));
  });
});

describe("windows", () => {
  test.each([
    { aspect: 9 / 16, height: 1080 },
    { aspect: 1, height: 1080 },
    { aspect: 21 / 9, height: 1920 / (21 / 9) },
  ])("the largest of aspect $aspect fills the picture on one axis", ({ aspect, height }) => {
    expect(largestWindowHeight(HD, aspect)).toBeCloseTo(height);
    expect(boxContains({ x: 0, y: 0, ...HD }, windowBox(centredWindow(wholeOf(HD), aspect), aspect), 1e-9)).toBe(true);
  });

  test("are brought back into the picture", () => {
    const window = clampWindow({ x: 5000, y: -50, height: 4000 }, wholeOf(HD), 9 / 16);
    expect(window).toEqual({ x: 1920 - (1080 * 9) / 16 / 2, y: 540, height: 1080 });
    const between = box(0, 140, 1920, 800);
    expect(clampWindow({ x: 5000, y: -50, height: 4000 }, between, 1)).toEqual({ x: 1520, y: 540, height: 800 });
  });

  test("a window as long as the picture has one place", () => {
    expect(centreBounds(1080, 1080)).toEqual([540, 540]);
    expect(centreBounds(1920, 607.5)).toEqual([303.75, 1616.25]);
  });
});
