import { describe, expect, test } from "@jest/globals";
import { texture, yuvPicture } from "../../../../tests/support/yuv-picture";
import { boxIou, type Box } from "../../geometry/box";
import type { YuvImage } from "../../image/yuv-image";
import { CorrelationTracker } from "./correlation-tracker";
import { fft2d } from "./fft";

/** A textured background with a blotchy thing at a place; `shift` pans the camera. */
function picture(thing: Box | null, shift = 0): YuvImage {
  return yuvPicture(320, 180, (x, y) => {
    const wave = 90 * texture(x + shift, y);
    if (thing && x >= thing.x && x < thing.x + thing.width && y >= thing.y && y < thing.y + thing.height) {
      // Blotches of its own, which grow with it.
      const blotch = 160 * texture((40 * (x - thing.x)) / thing.width + 700, (40 * (y - thing.y)) / thing.height, 8);
      return [190 + 0.4 * blotch, 120 + blotch, 70 + 0.5 * blotch];
    }
    return [120 + wave, 130 + wave, 110 + wave];
  });
}

const thingAt = (t: number): Box => ({ x: 40 + 3 * t, y: 60 + 20 * Math.sin(t / 9), width: 36, height: 30 });

describe("the tracker", () => {
  test("stays on a thing that moves", () => {
    const tracker = new CorrelationTracker(picture(thingAt(0)), thingAt(0));
    for (let t = 1; t < 60; t++) {
      const { box, seen } = tracker.update(picture(thingAt(t), t));
      expect(seen).toBe(true);
      expect(boxIou(box, thingAt(t))).toBeGreaterThan(0.6);
    }
  });

  test("finds the thing again after it was hidden for a second and more", () => {
    const tracker = new CorrelationTracker(picture(thingAt(0)), thingAt(0));
    for (let t = 1; t < 20; t++) tracker.update(picture(thingAt(t)));
    for (let t = 20; t < 50; t++) tracker.update(picture(null));
    let found = 0;
    for (let t = 50; t < 75; t++) {
      const { box, seen } = tracker.update(picture(thingAt(t)));
      if (seen && boxIou(box, thingAt(t)) > 0.5) found++;
    }
    expect(found).toBeGreaterThan(10);
  });

  test("grows with the thing", () => {
    const growing = (t: number): Box => {
      const side = 30 * 1.012 ** t;
      return { x: 160 - side / 2, y: 90 - side / 2, width: side, height: side };
    };
    const tracker = new CorrelationTracker(picture(growing(0)), growing(0));
    let last = growing(0);
    for (let t = 1; t < 60; t++) last = tracker.update(picture(growing(t))).box;
    expect(boxIou(last, growing(59))).toBeGreaterThan(0.6);
  });

  test("does not take what slides before the thing for the thing", () => {
    const post = (picture: YuvImage): YuvImage => {
      for (let y = 0; y < 180; y++) {
        picture.luma.fill(70, y * 320 + 130, y * 320 + 190);
        for (const plane of [picture.blue, picture.red]) plane.fill(118, (y >> 1) * 160 + 65, (y >> 1) * 160 + 95);
      }
      return picture;
    };
    const at = (t: number): Box => ({ x: 40 + 3 * t, y: 70, width: 36, height: 30 });
    const tracker = new CorrelationTracker(post(picture(at(0))), at(0));
    const sightings = Array.from({ length: 65 }, (_, t) => tracker.update(post(picture(at(t + 1)))));
    // Wholly behind the post, and out again on its other side.
    for (let t = 30; t < 38; t++) expect(sightings[t]!.seen).toBe(false);
    for (let t = 58; t < 65; t++) {
      expect(sightings[t]!.seen).toBe(true);
      expect(boxIou(sightings[t]!.box, at(t + 1))).toBeGreaterThan(0.6);
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

test("the Fourier transform and its inverse cancel out", () => {
  const re = Float64Array.from({ length: 64 }, (_, i) => Math.sin(i));
  const im = new Float64Array(64);
  fft2d(re, im, 8, false);
  fft2d(re, im, 8, true);
  re.forEach((value, i) => expect(value).toBeCloseTo(Math.sin(i), 10));
});
