import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import asc from "assemblyscript/asc";
import { fillWeights, Resampler } from "./resampler.server";

const PICTURE = { width: 480, height: 270 };
const OUTPUT = { width: 152, height: 270 };

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
    resampler.resample(window);
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
      resampler.resample({ x: 100 + by, y: 0, width: 151.875, height: 270 });
      return resampler.target.slice(114 * OUTPUT.width, 115 * OUTPUT.width);
    });
    const moved = (a: Uint8Array, b: Uint8Array) => a.reduce((sum, value, i) => sum + Math.abs(value - b[i]!), 0);
    const steps = rows.slice(1).map((row, i) => moved(rows[i]!, row));
    const whole = moved(rows[0]!, rows[5]!);
    for (const step of steps) expect(step / whole).toBeCloseTo(0.2, 1);
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

test("the kernel that ships is the one its source compiles to", async () => {
  let built: Uint8Array | undefined;
  const files = { "kernel.as.ts": readFileSync("app/media/resample/kernel.as.ts", "utf8") };
  const options = [
    "--outFile",
    "kernel.wasm",
    "--runtime",
    "stub",
    "--importMemory",
    "--noAssert",
    "-O3",
    "--enable",
    "simd",
  ];
  const { error } = await asc.main(["kernel.as.ts", ...options], {
    readFile: (name) => files[name as keyof typeof files] ?? null,
    writeFile: (_name, contents) => void (built = contents as Uint8Array),
    listFiles: () => [],
  });
  expect(error).toBeNull();
  expect(Buffer.from(built!).equals(readFileSync("app/media/resample/kernel.wasm"))).toBe(true);
});
