import { describe, expect, test } from "@jest/globals";
import { fill } from "~/core/composition/composition";
import { yuvOf } from "~/core/composition/colour";
import { newBar, newText } from "~/core/composition/layers/layer";
import { USUAL_SAFE_AREA } from "~/core/composition/layers/safe-area";
import { samplesOf } from "~/core/image/bit-depth";
import { Resampler } from "../resample/resampler.server";
import { LayerPainter } from "./layer-painter.server";
import { evenBox, overlayOf } from "./overlay";

const FRAME = { width: 62, height: 40 };
const LUMA = FRAME.width * FRAME.height;

/** Premultiplied pixels of one colour. */
function pixels(width: number, height: number, [r, g, b, a]: readonly [number, number, number, number]): Uint8Array {
  return Uint8Array.from({ length: 4 * width * height }, (_, i) =>
    i % 4 === 3 ? a : Math.round(([r, g, b][i % 4]! * a) / 255),
  );
}

/** A resampler with an even grey in its frame. */
function grey(): Resampler {
  const resampler = new Resampler(FRAME, FRAME);
  resampler.target.fill(100, 0, LUMA);
  resampler.target.fill(128, LUMA);
  return resampler;
}
const lumaAt = ({ target }: Resampler, x: number, y: number) => target[y * FRAME.width + x];

test.each(["normal", "multiply", "screen"] as const)("%s is the same over 10 bits as over 8", (mode) => {
  const wide = new Resampler(FRAME, FRAME, { depth: 10 });
  const samples = samplesOf(wide.target, 10);
  samples.fill(401, 0, LUMA);
  samples.fill(512, LUMA);
  const eight = grey();
  for (const resampler of [eight, wide]) {
    for (const [cover, opacity] of [[255, 0.4] as const, [90, 1] as const]) {
      const planes = overlayOf(pixels(20, 12, [0xc0, 0x30, 0x60, cover]), { x: 10, y: 8, width: 20, height: 12 });
      resampler.blend(planes, opacity, { x: 4, y: 2 }, mode);
    }
  }
  const worst = eight.target.reduce((most, value, i) => Math.max(most, Math.abs(value - samples[i]! / 4)), 0);
  expect(worst).toBeLessThanOrEqual(2);
  // What is not covered keeps a level that 8 bits do not have.
  expect(samples[0]).toBe(401);
  expect(Math.max(...samples)).toBeLessThan(1024);
});

describe("what is laid over a frame", () => {
  test("has whole samples of chroma, and none outside the frame", () => {
    expect(evenBox({ x: 3.2, y: 5, width: 4, height: 2.5 }, FRAME)).toEqual({ x: 2, y: 4, width: 6, height: 4 });
    expect(evenBox({ x: -9, y: 30, width: 100, height: 100 }, FRAME)).toEqual({ x: 0, y: 30, width: 62, height: 10 });
    expect(evenBox({ x: 80, y: 0, width: 10, height: 10 }, FRAME).width).toBe(0);
  });

  test("has the colour that it is given where it is solid, and leaves the rest alone", () => {
    const resampler = grey();
    const box = { x: 10, y: 8, width: 20, height: 12 };
    const [luma, blue, red] = yuvOf("#c03060").map(Math.round);
    resampler.blend(overlayOf(pixels(20, 12, [0xc0, 0x30, 0x60, 255]), box), 1);
    expect([lumaAt(resampler, 10, 8), lumaAt(resampler, 29, 19)]).toEqual([luma, luma]);
    expect([lumaAt(resampler, 9, 8), lumaAt(resampler, 30, 19), lumaAt(resampler, 10, 7)]).toEqual([100, 100, 100]);
    const chroma = (plane: number, x: number, y: number) =>
      resampler.target[LUMA + plane * (LUMA / 4) + y * (FRAME.width / 2) + x];
    expect([chroma(0, 6, 5), chroma(1, 6, 5)]).toEqual([blue, red]);
    expect([chroma(0, 4, 4), chroma(1, 15, 5)]).toEqual([128, 128]);
  });

  test("is mixed with what is there as far as it covers it, and by its opacity", () => {
    const box = { x: 0, y: 0, width: 62, height: 40 };
    const [white] = yuvOf("#ffffff") as [number, number, number];
    for (const [cover, opacity] of [
      [128, 1],
      [255, 0.4],
      [60, 0.5],
      [255, 0],
    ] as const) {
      const resampler = grey();
      resampler.blend(overlayOf(pixels(62, 40, [255, 255, 255, cover]), box), opacity);
      const share = (cover / 255) * opacity;
      expect(Math.abs(lumaAt(resampler, 31, 20)! - (share * white + (1 - share) * 100))).toBeLessThan(1.5);
      // The last pixels of the frame, where rows have room to spare, are no others.
      expect(lumaAt(resampler, 61, 39)).toBe(lumaAt(resampler, 31, 20));
    }
  });

  test("is cut off where it is moved out of the frame", () => {
    for (const y of [-30, 36]) {
      const resampler = grey();
      const before = resampler.target.slice();
      resampler.blend(overlayOf(pixels(8, 20, [0, 0, 0, 255]), { x: 8, y: 10, width: 8, height: 20 }), 1, { x: 0, y });
      expect(resampler.target).toEqual(before);
    }
    const resampler = grey();
    resampler.blend(overlayOf(pixels(8, 20, [0, 0, 0, 255]), { x: 8, y: 10, width: 8, height: 20 }), 1, {
      x: 0,
      y: 20,
    });
    expect([lumaAt(resampler, 9, 29), lumaAt(resampler, 9, 30), lumaAt(resampler, 9, 39)]).toEqual([100, 16, 16]);
  });
});

test("layers are painted over the composition in their order", () => {
  const ground = { frame: FRAME, safe: USUAL_SAFE_AREA };
  const bar = { ...newBar("b"), colour: "#ffffff", width: 2, height: 4, x: 0.5, y: 0.5 };
  const paint = (...layers: Parameters<typeof newText>[]) => {
    const resampler = grey();
    const at = [
      bar,
      ...layers.map(([id, text]) => ({ ...newText(id, text), y: 0.5, size: 0.5, shadow: 0, colour: "#000000" })),
    ];
    new LayerPainter(resampler, { image: () => null }).paint({
      ...fill({ x: 0, y: 0, height: 1 }, FRAME),
      layers: { ground, at: at.map((layer) => ({ layer, opacity: 1, shift: { x: 0, y: 0 } })) },
    });
    return resampler.target.subarray(0, LUMA);
  };
  expect(new Set(paint())).toEqual(new Set([235]));
  const dark = paint(["t", "MMM"]).filter((luma) => luma < 60).length;
  expect(dark).toBeGreaterThan(20);
  expect(dark).toBeLessThan(LUMA / 4);
});
