import { describe, expect, test } from "@jest/globals";
import { weighFades } from "./fades";
import { type FrameFeatures, LUMA_GRID } from "./frame-features";
import { PictureMatcher } from "./picture-match";

const { columns, rows } = LUMA_GRID;
const scene = (seed: number) => (i: number) =>
  110 + 60 * Math.sin((i % columns) * (0.2 + seed * 0.13) + i / columns / 3);

/** A film of frames that each are a picture, brought so far to a level of grey. */
const film = (frames: { seed: number; empty: number; level?: number }[]): FrameFeatures[] =>
  frames.map(({ seed, empty, level = 2 }) => ({
    luma: Uint8Array.from({ length: columns * rows }, (_, i) => scene(seed)(i) * (1 - empty) + level * empty),
    chroma: new Uint8Array(288).fill(128),
    histogram: new Uint8Array(80),
  }));
const fadesOf = (features: FrameFeatures[]) => weighFades(features, 30, new PictureMatcher(features));
const dip = (t: number, middle: number, half: number) => Math.max(0, 1 - Math.abs(t - middle) / half);

describe("fades", () => {
  test("through white, with the range in which they are under way", () => {
    const frames = Array.from({ length: 80 }, (_, t) => ({ seed: t < 40 ? 1 : 2, empty: dip(t, 40, 12), level: 250 }));
    const [fade, ...others] = fadesOf(film(frames));
    expect(others).toEqual([]);
    expect(fade!.strength).toBeGreaterThan(0.6);
    expect(fade!.frame).toBe(40);
    expect(Math.abs(fade!.range.start - 29)).toBeLessThanOrEqual(2);
    expect(Math.abs(fade!.range.end - 52)).toBeLessThanOrEqual(2);
  });

  test("an even one between two pictures of the same place counts", () => {
    const frames = Array.from({ length: 80 }, (_, t) => ({ seed: 1, empty: dip(t, 40, 15) }));
    expect(fadesOf(film(frames))[0]!.strength).toBeGreaterThan(0.5);
  });

  test("a lamp that is switched off and on is none, nor is one that is only turned down", () => {
    const switched = Array.from({ length: 80 }, (_, t) => ({ seed: 1, empty: t > 30 && t < 40 ? 1 : 0 }));
    expect(fadesOf(film(switched))).toEqual([]);
    const dimmed = Array.from({ length: 80 }, (_, t) => ({ seed: 1, empty: 0.6 * dip(t, 40, 15) }));
    expect(fadesOf(film(dimmed))).toEqual([]);
  });

  test("the black that a film begins and ends with is none", () => {
    const frames = Array.from({ length: 60 }, (_, t) => ({ seed: 1, empty: t < 10 || t > 50 ? 1 : 0 }));
    expect(fadesOf(film(frames))).toEqual([]);
  });
});
