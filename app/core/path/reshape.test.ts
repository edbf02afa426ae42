import { describe, expect, test } from "@jest/globals";
import type { CropWindow } from "../geometry/crop-window";
import { windowAt } from "./keys";
import { everyFrame, keysThrough, reversed, shiftedSoftly, smoothed } from "./reshape";

const at = (x: number): CropWindow => ({ x, y: 540, height: 1080 });
const FRAMES = 120;
/** A hand that goes across and shakes. */
const SHAKY = Array.from({ length: FRAMES }, (_, i) => at(600 + 4 * i + 6 * Math.sin(i * 1.7)));

/** Change of speed from frame to frame, the largest of them. */
const jolt = (windows: readonly CropWindow[]) =>
  Math.max(...windows.slice(2).map((_, i) => Math.abs(windows[i + 2]!.x - 2 * windows[i + 1]!.x + windows[i]!.x)));

describe("keys through a way", () => {
  test("are few, lead the window along it, and leave what follows to the solver", () => {
    const way = smoothed(SHAKY, 6);
    const keys = keysThrough(way, 40, 1, 8);
    expect(keys.length).toBeLessThanOrEqual(4);
    expect([keys[0]!.frame, keys.at(-1)!.frame]).toEqual([40, 40 + FRAMES - 1]);
    expect(keys.every(({ pane }) => pane === 1)).toBe(true);
    expect(keys.at(-1)!.easing).toBeNull();
    const path = keys.map((key) => ({ ...key, easing: key.easing ?? ("hold" as const), by: "hand" as const }));
    way.forEach(({ x }, i) => expect(Math.abs(windowAt(path, 40 + i).x - x)).toBeLessThanOrEqual(8));
  });

  test("are more where they are to be nearer", () => {
    expect(keysThrough(SHAKY, 0, 0, 1).length).toBeGreaterThan(keysThrough(SHAKY, 0, 0, 20).length);
    expect(keysThrough([], 0, 0, 1)).toEqual([]);
  });
});

describe("a way", () => {
  test("that is smoothed shakes less and ends where it did", () => {
    const calm = smoothed(SHAKY, 5);
    expect(jolt(calm)).toBeLessThan(jolt(SHAKY) / 10);
    expect(calm[0]!.x).toBeCloseTo(SHAKY[0]!.x);
    expect(calm.at(-1)!.x).toBeCloseTo(SHAKY.at(-1)!.x);
    expect(smoothed(SHAKY, 0)).toEqual(SHAKY);
  });

  test("that is shifted softly keeps its ends, and is all of the offset aside in its middle", () => {
    const shifted = shiftedSoftly(SHAKY, { x: 50, y: -20 }, 30);
    expect(shifted[0]).toEqual(SHAKY[0]);
    expect(shifted.at(-1)).toEqual(SHAKY.at(-1));
    expect(shifted[60]!.x - SHAKY[60]!.x).toBeCloseTo(50);
    expect(shifted[60]!.y).toBeCloseTo(520);
    expect(shifted[15]!.x - SHAKY[15]!.x).toBeCloseTo(25);
  });

  test("that is reversed twice is itself", () => {
    expect(reversed(SHAKY)[0]).toEqual(SHAKY.at(-1));
    expect(reversed(reversed(SHAKY))).toEqual(SHAKY);
  });

  test("that was led has a place at every frame, also at those that were not presented", () => {
    const led = [
      { frame: 14, window: at(140) },
      { frame: 10, window: at(100) },
      { frame: 11, window: at(110) },
      { frame: 11, window: at(112) },
    ];
    expect(everyFrame(led)).toEqual({ start: 10, windows: [100, 112, 112 + 28 / 3, 112 + 56 / 3, 140].map(at) });
  });
});
