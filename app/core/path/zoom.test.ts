import { describe, expect, test } from "@jest/globals";
import { boxContains, type Box } from "../geometry/box";
import { windowBox } from "../geometry/crop-window";
import type { Track } from "../subjects/tracking/track";
import { USUAL_FRAMING, Zoom } from "./framing-settings";
import { windowAt } from "./keys";
import { solveShot, type ShotProblem } from "./solve-shot";
import { heightLimits, mostZoom } from "./zoom-goals";

const UHD = { width: 3840, height: 2160 };
const TALL = { width: 1080, height: 1920 };
const ASPECT = 9 / 16;

const face = (at: (t: number) => Box, frames = 240): Track => ({
  id: "s0-face-1",
  kind: "face",
  start: 0,
  boxes: Array.from({ length: frames }, (_, t) => at(t)),
  confidence: 1,
});
const small = (t: number): Box => ({ x: 1500 + 2 * t, y: 900, width: 150, height: 190 });
const solve = (track: Track, zoom: Zoom, more: Partial<ShotProblem> = {}) =>
  solveShot({
    shot: { start: 0, end: track.boxes.length },
    picture: UHD,
    target: TALL,
    rate: { num: 30, den: 1 },
    settings: { ...USUAL_FRAMING, movement: "glide", zoom },
    subject: { track, body: null },
    handKeys: [],
    protect: null,
    texts: [],
    ...more,
  });

describe("zoom", () => {
  test("that is fixed makes every window as much smaller, and moves it up and down as well", () => {
    const track = face(small);
    const { windows } = solve(track, { kind: "fixed", factor: 1.5 });
    windows.forEach((window, t) => {
      expect(window.height).toBeCloseTo(1440, 6);
      expect(boxContains(windowBox(window, ASPECT), track.boxes[t]!)).toBe(true);
    });
    // Eyes about a third from the top.
    const eyes = (900 + 0.4 * 190 - (windows[100]!.y - 720)) / 1440;
    expect(Math.abs(eyes - 1 / 3)).toBeLessThan(0.15);
  });

  test("that is free comes nearer to who is small, within its limits", () => {
    const { windows } = solve(face(small), { kind: "free", min: 1, max: 4 });
    for (const { height } of windows) expect(height).toBeLessThan(1500);
    const { windows: limited } = solve(face(small), { kind: "free", min: 1, max: 1.2 });
    for (const { height } of limited) expect(height).toBeGreaterThanOrEqual(1800 - 1e-6);
  });

  test("that is free goes no nearer than the picture bears", () => {
    const zoom: Zoom = { kind: "free", min: 1.1, max: 4 };
    const limits = (largestScale: number, target = TALL) => heightLimits({ zoom, largestScale }, UHD, target);
    // 1280 lines enlarged 1.5 times are the version's 1920.
    expect(limits(1.5)).toEqual([1280, 2160 / 1.1]);
    expect(limits(8)).toEqual([540, 2160 / 1.1]);
    const huge = { width: 2160, height: 3840 };
    expect(mostZoom(UHD, huge, 1.5)).toBe(1);
    expect(limits(1.5, huge)).toEqual([2160 / 1.1, 2160 / 1.1]);
    const { windows } = solve(face(small), zoom);
    for (const { height } of windows) expect(height).toBeGreaterThanOrEqual(1280 - 1e-6);
    const asked = heightLimits({ zoom: { kind: "fixed", factor: 4 }, largestScale: 1.5 }, UHD, TALL);
    expect(asked).toEqual([540, 540]);
  });

  test("that is free goes back for what is large, and holds in between", () => {
    const nearer = face((t) => {
      const size = t < 100 ? 200 : t < 150 ? 200 + 8 * (t - 100) : 600;
      return { x: 1900 - size / 2, y: 1000 - size / 2, width: size, height: 1.2 * size };
    });
    const { windows, keys } = solve(nearer, { kind: "free", min: 1, max: 2 });
    expect(windows[0]!.height).toBeLessThan(1700);
    expect(windows[239]!.height).toBeGreaterThan(1800);
    windows.forEach((window, t) => expect(boxContains(windowBox(window, ASPECT), nearer.boxes[t]!, 1)).toBe(true));
    expect(keys.length).toBeLessThanOrEqual(8);
    for (const { x, y, height } of windows) {
      expect(x - (height * ASPECT) / 2).toBeGreaterThanOrEqual(-1e-6);
      expect(y - height / 2).toBeGreaterThanOrEqual(-1e-6);
      expect(y + height / 2).toBeLessThanOrEqual(2160 + 1e-6);
    }
  });

  test("of a hand key is met, also beyond the limits", () => {
    const handKeys = [{ frame: 120, x: 1800, y: 1000, height: 800 }];
    const { windows, keys } = solve(face(small), { kind: "fixed", factor: 1 }, { handKeys });
    expect(windows[120]).toEqual({ x: 1800, y: 1000, height: 800 });
    expect(windowAt(keys, 120)).toEqual({ x: 1800, y: 1000, height: 800 });
    expect(windows[0]!.height).toBeGreaterThan(1800);
  });

  test("is a factor of 1 to 4, its least no more than its most", () => {
    expect(Zoom.safeParse({ kind: "free", min: 2, max: 1 }).success).toBe(false);
    expect(Zoom.safeParse({ kind: "fixed", factor: 5 }).success).toBe(false);
    expect(Zoom.safeParse({ kind: "free", min: 1, max: 2 }).success).toBe(true);
  });
});
