import { describe, expect, test } from "@jest/globals";
import { ease, EASINGS } from "./easing";
import { type Key, windowAt } from "./keys";

const key = (frame: number, x: number, easing: Key["easing"] = "linear", height = 1080): Key => ({
  frame,
  x,
  y: 540,
  height,
  easing,
  by: "solver",
});

describe("the window between keys", () => {
  test("rests before the first and after the last", () => {
    const keys = [key(10, 400), key(20, 600)];
    expect([0, 9, 10].map((frame) => windowAt(keys, frame).x)).toEqual([400, 400, 400]);
    expect([20, 21, 500].map((frame) => windowAt(keys, frame).x)).toEqual([600, 600, 600]);
    expect(windowAt([key(10, 400)], 3)).toEqual({ x: 400, y: 540, height: 1080 });
  });

  test.each(EASINGS)("goes with %s as that goes", (easing) => {
    const keys = [key(0, 400, easing, 1000), key(40, 800, "hold", 600)];
    for (let frame = 0; frame <= 40; frame++) {
      const share = ease(easing, frame / 40);
      const { x, y, height } = windowAt(keys, frame);
      expect(x).toBeCloseTo(400 + 400 * share, 9);
      expect(height).toBeCloseTo(1000 - 400 * share, 9);
      expect(y).toBe(540);
    }
  });

  test("with hold stays up to the next one's very frame", () => {
    const keys = [key(0, 400, "hold"), key(12, 900, "hold")];
    expect([11, 12].map((frame) => windowAt(keys, frame).x)).toEqual([400, 900]);
  });

  test("is found among many as among few", () => {
    const keys = Array.from({ length: 500 }, (_, i) => key(7 * i, (i * 37) % 100));
    for (const i of [0, 1, 250, 498, 499]) expect(windowAt(keys, 7 * i).x).toBe((i * 37) % 100);
    const [from, to] = [(321 * 37) % 100, (322 * 37) % 100];
    expect(windowAt(keys, 7 * 321 + 3).x).toBeCloseTo(from + ((to - from) * 3) / 7, 9);
  });
});
