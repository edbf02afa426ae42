import { clamped } from "../numbers/clamped";
import { describe, expect, test } from "@jest/globals";
import { fitMixture, fitSweep } from "./blend-models";
import { CELL_COUNT, CHANNELS, compareLuma } from "./cell-series";
import { CELLS } from "./frame-features";

const LENGTH = 21;
const picture = (seed: number) =>
  Float32Array.from({ length: CELL_COUNT * CHANNELS }, (_, i) => 128 + 90 * Math.sin(i * (1.7 + seed) + seed * 5));
const FROM = picture(1);
const TO = picture(2);

/** A stretch in which each cell shows the later picture by a share that depends on its place and the time, 0 to 1. */
function stretch(share: (column: number, row: number, time: number) => number): Float32Array[] {
  return Array.from({ length: LENGTH }, (_, t) =>
    FROM.map((value, i) => {
      const cell = Math.floor(i / CHANNELS);
      const s = share(cell % CELLS.columns, Math.floor(cell / CELLS.columns), t / (LENGTH - 1));
      return value + (TO[i]! - value) * clamped(s, 0, 1);
    }),
  );
}
const dissolve = stretch((_column, _row, time) => time);
const wipe = stretch((column, _row, time) => (time * CELLS.columns > column ? 1 : 0));
const iris = stretch((column, row, time) =>
  Math.hypot(column - (CELLS.columns - 1) / 2, row - (CELLS.rows - 1) / 2) < time * 10 ? 1 : 0,
);
const cut = stretch((_column, _row, time) => (time > 0.5 ? 1 : 0));
const last = LENGTH - 1;

describe("a mixture", () => {
  test("explains a dissolve wholly, with its shares", () => {
    const { shares, residual } = fitMixture(dissolve, 0, last);
    expect(residual).toBeLessThan(1e-5);
    shares.forEach((share, t) => expect(share).toBeCloseTo(t / last, 5));
  });

  test("does not explain a wipe, whose share it still tells", () => {
    const { shares, residual } = fitMixture(wipe, 0, last);
    expect(residual).toBeGreaterThan(0.3);
    expect(shares[last / 2]).toBeGreaterThan(0.3);
    expect(shares[last / 2]).toBeLessThan(0.7);
  });
});

describe("a sweep", () => {
  test("explains wipes and irises, whose turns lie on a front", () => {
    for (const series of [wipe, iris]) {
      const { residual, front, spread } = fitSweep(series, 0, last);
      expect(residual).toBeLessThan(1e-5);
      expect(front).toBeGreaterThan(0.9);
      expect(spread).toBeGreaterThan(0.15);
    }
  });

  test("leaves an even mixture the residual of 1/√12, and a cut no spread", () => {
    expect(fitSweep(dissolve, 0, last).residual).toBeCloseTo(1 / Math.sqrt(12), 1);
    expect(fitSweep(cut, 0, last).spread).toBeCloseTo(0, 9);
  });

  test("finds no front where cells turn in any order", () => {
    const scattered = stretch((column, row, time) => (time > ((column * 7 + row * 11) % 13) / 13 ? 1 : 0));
    expect(fitSweep(scattered, 0, last).front).toBeLessThan(0.3);
  });
});

test("the likeness of two pictures is that of their luma, whatever the light", () => {
  expect(
    compareLuma(
      FROM,
      FROM.map((value) => 20 + 0.3 * value),
    ).correlation,
  ).toBeCloseTo(1, 3);
  expect(Math.abs(compareLuma(FROM, TO).correlation)).toBeLessThan(0.4);
});
