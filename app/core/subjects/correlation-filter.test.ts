import { describe, expect, test } from "@jest/globals";
import { boxIou, type Box } from "../geometry/box";
import type { RgbImage } from "../image/rgb-image";
import { CorrelationTracker } from "./correlation-filter";
import { fft2d } from "./fft";
import { MotionWatcher, mostMoving } from "./motion";

const WIDTH = 320;
const HEIGHT = 180;

/** A smooth random texture: a lattice of values, interpolated. */
function texture(x: number, y: number): number {
  const lattice = (i: number, j: number) => {
    const mixed = Math.imul(i * 374761393 + j * 668265263, 1274126177);
    return ((mixed ^ (mixed >>> 15)) >>> 0) / 2 ** 32 - 0.5;
  };
  const [i, j] = [Math.floor(x / 9), Math.floor(y / 9)];
  const [u, v] = [x / 9 - i, y / 9 - j];
  const top = lattice(i, j) + (lattice(i + 1, j) - lattice(i, j)) * u;
  const bottom = lattice(i, j + 1) + (lattice(i + 1, j + 1) - lattice(i, j + 1)) * u;
  return top + (bottom - top) * v;
}

/** A textured background with a striped thing at a place; `shift` pans the camera. */
function picture(thing: Box | null, shift = 0): RgbImage {
  const data = new Uint8Array(WIDTH * HEIGHT * 3);
  for (let y = 0; y < HEIGHT; y++) {
    for (let x = 0; x < WIDTH; x++) {
      const wave = 90 * texture(x + shift, y);
      let colour = [120 + wave, 130 + wave, 110 + wave];
      if (thing && x >= thing.x && x < thing.x + thing.width && y >= thing.y && y < thing.y + thing.height) {
        const stripe = Math.floor((x - thing.x) / 5 + (y - thing.y) / 9) % 2 === 0;
        colour = stripe ? [210, 60, 50] : [230, 200, 90];
      }
      data.set(colour, (y * WIDTH + x) * 3);
    }
  }
  return { width: WIDTH, height: HEIGHT, data };
}

const thingAt = (t: number): Box => ({ x: 40 + 3 * t, y: 60 + 20 * Math.sin(t / 9), width: 36, height: 30 });

describe("the correlation filter", () => {
  test("stays on a thing that moves", () => {
    const tracker = new CorrelationTracker(picture(thingAt(0)), thingAt(0));
    for (let t = 1; t < 60; t++) {
      const { box, seen } = tracker.update(picture(thingAt(t), t));
      expect(seen).toBe(true);
      expect(boxIou(box, thingAt(t))).toBeGreaterThan(0.6);
    }
  });

  test("notices that the thing is gone, and coasts", () => {
    const tracker = new CorrelationTracker(picture(thingAt(0)), thingAt(0));
    for (let t = 1; t < 25; t++) tracker.update(picture(thingAt(t)));
    const sightings = [25, 26, 27].map(() => tracker.update(picture(null)));
    expect(sightings.every(({ seen }) => !seen)).toBe(true);
    expect(sightings[2]!.box.x).toBeGreaterThan(sightings[0]!.box.x);
  });
});

describe("motion", () => {
  const watch = (at: (t: number) => RgbImage) => {
    const watcher = new MotionWatcher(3);
    for (let t = 0; t < 45; t++) watcher.add(t, at(t));
    return mostMoving(watcher.looks, { width: WIDTH, height: HEIGHT });
  };

  test("is found against a camera that pans", () => {
    const found = watch((t) => picture(thingAt(t), 2 * t))!;
    const centre = { x: found.box.x + found.box.width / 2, y: found.box.y + found.box.height / 2 };
    const thing = thingAt(found.frame);
    expect(Math.abs(centre.x - thing.x - thing.width / 2)).toBeLessThan(30);
    expect(Math.abs(centre.y - thing.y - thing.height / 2)).toBeLessThan(30);
  });

  test("is not found where only the camera moves, nor where nothing does", () => {
    expect(watch((t) => picture(null, 2 * t))).toBeNull();
    expect(watch(() => picture(null))).toBeNull();
  });
});

test("the Fourier transform and its inverse cancel out", () => {
  const re = Float64Array.from({ length: 64 }, (_, i) => Math.sin(i));
  const im = new Float64Array(64);
  fft2d(re, im, 8, false);
  fft2d(re, im, 8, true);
  re.forEach((value, i) => expect(value).toBeCloseTo(Math.sin(i), 10));
});
