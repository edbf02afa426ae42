import { describe, expect, test } from "@jest/globals";
import { MotionWatcher, mostMoving } from "./motion";

const SIZE = { width: 160, height: 90 };

/** A textured picture seen by a camera at `pan`, with a bright thing at a place of the picture. */
function image(pan: number, thing: { x: number; y: number } | null) {
  const data = new Uint8Array(SIZE.width * SIZE.height * 3);
  for (let y = 0; y < SIZE.height; y++) {
    for (let x = 0; x < SIZE.width; x++) {
      const wave = Math.sin((x + pan) * 0.31 + y * 0.11) + Math.sin((x + pan) * 0.07 - y * 0.23);
      const value = thing && Math.hypot(x - thing.x, y - thing.y) < 8 ? 240 : 110 + 35 * wave;
      data.fill(value, (y * SIZE.width + x) * 3, (y * SIZE.width + x) * 3 + 3);
    }
  }
  return { ...SIZE, data };
}

function watch(pan: (t: number) => number, thing: (t: number) => { x: number; y: number } | null) {
  const watcher = new MotionWatcher(3);
  for (let t = 0; t < 30; t++) watcher.add(100 + t, image(pan(t), thing(t)));
  return mostMoving(watcher.looks, SIZE);
}

describe("what moves most", () => {
  test("is found under a camera that stands still, and under one that pans", () => {
    for (const speed of [0, 1.25]) {
      const found = watch(
        (t) => speed * t,
        (t) => ({ x: 30 + 3.5 * t, y: 45 }),
      );
      expect(found).not.toBeNull();
      const { frame, box } = found!;
      const x = 30 + 3.5 * (frame - 100);
      // The box holds where the thing is, or was a look before.
      expect(box.x).toBeLessThan(x + 12);
      expect(box.x + box.width).toBeGreaterThan(x - 24);
      expect(Math.abs(box.y + box.height / 2 - 45)).toBeLessThan(15);
    }
  });

  test("is nothing where only the camera moves, or nothing at all", () => {
    expect(
      watch(
        (t) => 2 * t,
        () => null,
      ),
    ).toBeNull();
    expect(
      watch(
        () => 0,
        () => null,
      ),
    ).toBeNull();
    expect(mostMoving([], SIZE)).toBeNull();
  });
});
