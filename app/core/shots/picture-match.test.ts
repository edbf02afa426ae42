import { describe, expect, test } from "@jest/globals";
import { type FrameFeatures, LUMA_GRID } from "./frame-features";
import { LumaPlane } from "./luma-plane";
import { PictureMatcher } from "./picture-match";

const { columns, rows } = LUMA_GRID;

/** A frame whose luma is given by place; texture that repeats nowhere within the picture comes from `noise`. */
function frame(luma: (x: number, y: number) => number): FrameFeatures {
  const data = Uint8Array.from({ length: columns * rows }, (_, i) => luma(i % columns, Math.floor(i / columns)));
  return { luma: data, chroma: new Uint8Array(288).fill(128), histogram: new Uint8Array(80) };
}

const noise = (seed: number) => {
  const random = Array.from({ length: 4096 }, (_, i) => {
    const value = Math.sin(i * 12.9898 + seed * 78.233) * 43758.5453;
    return value - Math.floor(value);
  });
  const at = (x: number, y: number) => random[(((y % 64) + 64) % 64) * 64 + (((x % 64) + 64) % 64)]!;
  // Two octaves, smoothed, so that half a sample of movement does not destroy the structure.
  return (x: number, y: number) => {
    const [cx, cy] = [Math.floor(x / 3), Math.floor(y / 3)];
    const [fx, fy] = [x / 3 - cx, y / 3 - cy];
    const top = at(cx, cy) * (1 - fx) + at(cx + 1, cy) * fx;
    const bottom = at(cx, cy + 1) * (1 - fx) + at(cx + 1, cy + 1) * fx;
    return 40 + 160 * (top * (1 - fy) + bottom * fy);
  };
};
const A = noise(1);
const B = noise(2);
const match = (earlier: FrameFeatures, later: FrameFeatures) => new PictureMatcher([earlier, later]).match(0, 1);

describe("matching pictures", () => {
  test("a picture explains itself, and another one does not", () => {
    expect(match(frame(A), frame(A))).toMatchObject({ unexplained: 0, unchanged: 1, worst: 0 });
    const other = match(frame(A), frame(B));
    expect(other.unexplained).toBeGreaterThan(0.6);
    expect(other.unchanged).toBeLessThan(0.2);
  });

  test("a camera that pans, even quickly, shows what was there", () => {
    for (const shift of [1, 5, 14]) {
      const { unexplained } = match(
        frame(A),
        frame((x, y) => A(x + shift, y + 1)),
      );
      expect(unexplained).toBeLessThan(0.1);
    }
  });

  test("another light explains nothing away and adds nothing", () => {
    expect(
      match(
        frame(A),
        frame((x, y) => 20 + 0.4 * A(x, y)),
      ).unexplained,
    ).toBeLessThan(0.02);
    expect(
      match(
        frame(A),
        frame((x, y) => 20 + 0.4 * B(x, y)),
      ).unexplained,
    ).toBeGreaterThan(0.6);
  });

  test("what jumps in a picture that stays is the worst part of it", () => {
    const person = (at: number) => (x: number, y: number) => (Math.hypot(x - at, y - 18) < 7 ? B(x - at, y) : A(x, y));
    const jumped = match(frame(person(20)), frame(person(27)));
    expect(jumped.unchanged).toBeGreaterThan(0.6);
    expect(jumped.unexplained).toBeLessThan(0.3);
    expect(jumped.worst).toBeGreaterThan(0.5);
  });

  test("pictures without structure are told apart by where they are light", () => {
    const halves = (left: number, right: number) => frame((x) => (x < columns / 2 ? left : right));
    expect(match(halves(60, 180), halves(60, 180)).unexplained).toBeLessThan(0.05);
    expect(match(halves(60, 180), halves(180, 60)).unexplained).toBeGreaterThan(0.3);
  });

  test("frames beyond the ends are the ends", () => {
    const matcher = new PictureMatcher([frame(A), frame(B)]);
    expect(matcher.match(-5, 7)).toEqual(matcher.match(0, 1));
  });
});

describe("summed-area tables", () => {
  const plane = new LumaPlane(
    Uint8Array.from({ length: 24 }, (_, i) => i * 3),
    6,
    4,
  );

  test("give the mean and the deviation of any rectangle", () => {
    const values = [7, 8, 13, 14].map((i) => i * 3);
    const mean = values.reduce((a, b) => a + b, 0) / 4;
    const variance = values.reduce((a, b) => a + (b - mean) ** 2, 0) / 4;
    const { mean: found, deviation } = plane.statistics(1, 1, 2, 2);
    expect(found).toBeCloseTo(mean, 9);
    expect(deviation).toBeCloseTo(Math.sqrt(variance), 9);
    expect(plane.sum(0, 0, 6, 4)).toBe((23 * 24 * 3) / 2);
    expect(plane.squares(5, 3, 1, 1)).toBe(69 ** 2);
  });

  test("are halved by the mean of four", () => {
    const half = plane.halved();
    expect([half.columns, half.rows]).toEqual([3, 2]);
    expect(half.samples[0]).toBeCloseTo((0 + 3 + 18 + 21) / 4, 5);
    expect(plane.halved()).toBe(half);
  });
});
