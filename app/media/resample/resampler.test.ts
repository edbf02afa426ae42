import { describe, expect, test } from "@jest/globals";
import type { Composition, Pane } from "~/core/composition/composition";
import { type Box, wholeOf } from "~/core/geometry/box";
import { samplesOf } from "~/core/image/bit-depth";
import { Resampler } from "./resampler.server";
import { fillWeights } from "./weights";

const PICTURE = { width: 480, height: 270 };
const OUTPUT = { width: 152, height: 270 };

const composed = (...panes: Pane[]): Composition => ({ size: OUTPUT, backdrop: null, panes, layers: null });
const whole = (source: Box) => composed({ source, target: wholeOf(OUTPUT) });

/** A smooth pattern of which the value is known between pixels, too. */
const pattern = (x: number, y: number) =>
  128 + 50 * Math.sin(x * 0.13) * Math.cos(y * 0.11) + 30 * Math.sin(x * 0.05 + y * 0.07);

/** Planes of the pattern: luma at pixel centres, chroma sited left (x 2i + 0.5, y 2j + 1 in luma pixels). */
function drawPattern(resampler: Resampler): void {
  const { width, height } = PICTURE;
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) resampler.source[y * width + x] = pattern(x + 0.5, y + 0.5);
  for (let plane = 0; plane < 2; plane++) {
    const base = width * height + plane * (width / 2) * (height / 2);
    for (let j = 0; j < height / 2; j++) {
      for (let i = 0; i < width / 2; i++)
        resampler.source[base + j * (width / 2) + i] = pattern(2 * i + 0.5, 2 * j + 1);
    }
  }
}

describe("the resampler", () => {
  test.each([
    { x: 100.3, y: 0, width: 151.875, height: 270 },
    { x: 0, y: 0, width: 151.875, height: 270 },
    { x: 328.125, y: 0, width: 151.875, height: 270 },
    { x: 200.77, y: 40.21, width: 90, height: 160 },
  ])("shows the window at its sub-pixel place, luma and chroma ($x)", (window) => {
    const resampler = new Resampler(PICTURE, OUTPUT);
    drawPattern(resampler);
    resampler.compose(whole(window));
    const { width, height } = OUTPUT;
    const step = { x: window.width / width, y: window.height / height };
    let worstLuma = 0;
    let worstChroma = 0;
    // Two pixels from the edges, where there is nothing beyond the picture to interpolate with.
    for (let y = 4; y < height - 4; y++) {
      for (let x = 4; x < width - 4; x++) {
        const expected = pattern(window.x + (x + 0.5) * step.x, window.y + (y + 0.5) * step.y);
        worstLuma = Math.max(worstLuma, Math.abs(resampler.target[y * width + x]! - expected));
      }
    }
    for (let j = 3; j < height / 2 - 3; j++) {
      for (let i = 3; i < width / 2 - 3; i++) {
        const expected = pattern(window.x + (2 * i + 0.5) * step.x, window.y + (2 * j + 1) * step.y);
        const value = resampler.target[width * height + j * (width / 2) + i]!;
        worstChroma = Math.max(worstChroma, Math.abs(value - expected));
      }
    }
    // 8 bits round by a half on the way in and on the way out.
    expect(worstLuma).toBeLessThan(2);
    expect(worstChroma).toBeLessThan(2.5);
  });

  test("moves by a fifth of a pixel when the window does", () => {
    const resampler = new Resampler(PICTURE, OUTPUT);
    drawPattern(resampler);
    const rows = [0, 0.2, 0.4, 0.6, 0.8, 1].map((by) => {
      resampler.compose(whole({ x: 100 + by, y: 0, width: 151.875, height: 270 }));
      return resampler.target.slice(114 * OUTPUT.width, 115 * OUTPUT.width);
    });
    const moved = (a: Uint8Array, b: Uint8Array) => a.reduce((sum, value, i) => sum + Math.abs(value - b[i]!), 0);
    const steps = rows.slice(1).map((row, i) => moved(rows[i]!, row));
    const all = moved(rows[0]!, rows[5]!);
    for (const step of steps) expect(step / all).toBeCloseTo(0.2, 1);
  });
});

test("samples of 10 bits keep what 8 have no levels for", () => {
  const resampler = new Resampler(PICTURE, OUTPUT, { depth: 10 });
  const { width, height } = PICTURE;
  const source = samplesOf(resampler.source, 10).fill(512);
  // So slow a ramp that it passes 30 levels of 8 bits, and 120 of 10, from the left to the right.
  const ramp = (x: number) => 400 + (x / width) * 120;
  for (let y = 0; y < height; y++) for (let x = 0; x < width; x++) source[y * width + x] = Math.round(ramp(x + 0.5));
  resampler.compose(whole({ x: 60.3, y: 10, width: 243, height: 243 * (OUTPUT.height / OUTPUT.width) }));
  const row = samplesOf(resampler.target, 10).subarray(114 * OUTPUT.width, 115 * OUTPUT.width);
  const step = 243 / OUTPUT.width;
  const errors = [...row].map((value, x) => Math.abs(value - ramp(60.3 + (x + 0.5) * step)));
  expect(Math.max(...errors)).toBeLessThanOrEqual(1);
  expect(new Set(row).size).toBeGreaterThan(50);
});

test("frames of 10 bits are those of 8 but for their rounding: panes with edges, what lies behind them, and black", () => {
  const framed = (edge?: Pane["edge"]): Pane => ({
    source: { x: 40, y: 20, width: 200, height: 160 },
    target: { x: 10.25, y: 60.5, width: 120.5, height: 96.4 },
    ...(edge ? { edge } : {}),
  });
  const before = (look: NonNullable<Composition["backdrop"]>["look"]): Composition => ({
    ...composed(framed()),
    backdrop: { look, source: { x: 160, y: 0, width: 152, height: 270 } },
  });
  const [eight, ten] = [new Resampler(PICTURE, OUTPUT), new Resampler(PICTURE, OUTPUT, { depth: 10 })];
  drawPattern(eight);
  const [source, target] = [samplesOf(ten.source, 10), samplesOf(ten.target, 10)];
  eight.source.forEach((value, i) => (source[i] = 4 * value));
  for (const composition of [
    composed(framed()),
    composed(framed({ look: "shadow", corner: 20 })),
    before({ kind: "blur", strength: 50, darkness: 30, zoom: 1 }),
    before({ kind: "mirror", darkness: 40 }),
    before({ kind: "gradient", top: "#204060", foot: "#a03020" }),
  ]) {
    eight.compose(composition);
    ten.compose(composition);
    const worst = eight.target.reduce((most, value, i) => Math.max(most, Math.abs(value - target[i]! / 4)), 0);
    expect(worst).toBeLessThanOrEqual(2);
  }
});

describe("panes", () => {
  const upper = {
    source: { x: 40, y: 20, width: 200, height: 160 },
    target: { x: 10.25, y: 6.5, width: 120.5, height: 96.4 },
  };
  const lower = {
    source: { x: 250, y: 60, width: 110, height: 110 },
    target: { x: 30, y: 150, width: 100, height: 100 },
  };
  const { width, height } = OUTPUT;
  const compose = (...panes: Pane[]) => {
    const resampler = new Resampler(PICTURE, OUTPUT, { panes: 2 });
    drawPattern(resampler);
    resampler.compose(composed(...panes));
    return resampler.target;
  };

  test("lie at their sub-pixel places, with black around them, luma and chroma", () => {
    const frame = compose(upper, lower);
    let worst = 0;
    for (const { source, target } of [upper, lower]) {
      const step = { x: source.width / target.width, y: source.height / target.height };
      for (let y = Math.ceil(target.y) + 1; y < target.y + target.height - 2; y++) {
        for (let x = Math.ceil(target.x) + 1; x < target.x + target.width - 2; x++) {
          const expected = pattern(source.x + (x + 0.5 - target.x) * step.x, source.y + (y + 0.5 - target.y) * step.y);
          worst = Math.max(worst, Math.abs(frame[y * width + x]! - expected));
        }
      }
      for (let j = Math.ceil(target.y / 2) + 1; 2 * j < target.y + target.height - 4; j++) {
        for (let i = Math.ceil(target.x / 2) + 1; 2 * i < target.x + target.width - 4; i++) {
          const at = { x: 2 * i + 0.5 - target.x, y: 2 * j + 1 - target.y };
          const value = frame[width * height + j * (width / 2) + i]!;
          worst = Math.max(worst, Math.abs(value - pattern(source.x + at.x * step.x, source.y + at.y * step.y)));
        }
      }
    }
    expect(worst).toBeLessThan(2.5);
    expect([frame[0], frame[120 * width + 60], frame[width * height]]).toEqual([16, 16, 128]);
  });

  test("cover their borders as far as they reach into them", () => {
    const frame = compose(upper);
    const inside = pattern(upper.source.x + 0.5, upper.source.y + 0.5 * 1.66 + 30 * 1.66);
    // Three quarters of column 10 are the pane's, and half of row 6.
    const row = Math.round(upper.target.y) + 30;
    expect(frame[row * width + 10]).toBeGreaterThan(16 + 0.6 * (inside - 16));
    expect(frame[row * width + 10]).toBeLessThan(16 + 0.9 * (inside - 16));
    expect(frame[row * width + 9]).toBe(16);
    expect(frame[6 * width + 60]! / frame[8 * width + 60]!).toBeCloseTo(0.55, 1);
    expect(frame[5 * width + 60]).toBe(16);
  });

  test("that come later lie over those before, and one that covers all hides them", () => {
    const cover = whole({ x: 100.3, y: 0, width: 151.875, height: 270 }).panes[0]!;
    expect(compose(upper, cover)).toEqual(compose(cover));
    const over = compose(cover, lower);
    expect(over[200 * width + 80]).toBe(compose(lower)[200 * width + 80]);
    expect(over[20 * width + 20]).toBe(compose(cover)[20 * width + 20]);
  });

  test("of which there are more, or that are smaller, than was said are refused", () => {
    const one = new Resampler(PICTURE, OUTPUT, { panes: 1 });
    expect(() => one.compose(composed(upper, lower))).toThrow("more panes");
    const tiny = { source: wholeOf(PICTURE), target: { x: 0, y: 0, width: 8, height: 4 } };
    expect(() => one.compose(composed(tiny))).toThrow("so small");
  });
});

test("weights sum to one for every sample, also where the picture ends", () => {
  const starts = new Int32Array(50);
  const weights = new Int16Array(50 * 8);
  fillWeights(starts, weights, 8, -0.5, 1.4, 69);
  for (let i = 0; i < 50; i++) {
    expect(weights.slice(i * 8, i * 8 + 8).reduce((a, b) => a + b, 0)).toBe(16384);
    expect(starts[i]!).toBeGreaterThanOrEqual(0);
    expect(starts[i]! + 8).toBeLessThanOrEqual(69);
  }
});
