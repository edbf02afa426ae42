import { describe, expect, test } from "@jest/globals";
import type { Track } from "../subjects/tracking/track";
import { wholeOf } from "../geometry/box";
import { copyKey } from "./copy-key";
import { USUAL_FRAMING } from "./framing-settings";
import { curveOf, ease } from "./easing";
import { windowAt } from "./keys";
import type { Movement } from "./movement";
import { solveShot } from "./solve-shot";
import type { HandKey } from "./hand-key";

const HD = { width: 1920, height: 1080 };
const TALL = { width: 1080, height: 1920 };
const SQUARE = { width: 1080, height: 1080 };
const key = (frame: number, x: number, easing: HandKey["easing"] = null, height = 1080): HandKey => ({
  pane: 0,
  frame,
  x,
  y: 540,
  height,
  easing,
});

describe("hand keys with an easing of their own", () => {
  const track: Track = {
    id: "face",
    kind: "face",
    start: 100,
    boxes: Array.from({ length: 200 }, (_, t) => ({ x: 500 + 3 * t, y: 300, width: 120, height: 150 })),
    confidence: 1,
  };
  const solve = (handKeys: HandKey[], movement: Movement = "glide") =>
    solveShot({
      shot: { start: 100, end: 300 },
      picture: HD,
      target: TALL,
      rate: { num: 30, den: 1 },
      settings: { ...USUAL_FRAMING, movement },
      subject: { track, body: null },
      handKeys,
      protect: null,
      texts: [],
    });

  test("that differ are gone between softly in Still as well, which rests everywhere else", () => {
    const { windows, keys } = solve([key(150, 650), key(210, 900)], "still");
    windows.slice(0, 51).forEach(({ x }) => expect(x).toBeCloseTo(650, 6));
    windows.slice(110).forEach(({ x }) => expect(x).toBeCloseTo(900, 6));
    const speeds = windows.slice(1).map(({ x }, i) => x - windows[i]!.x);
    const changes = speeds.slice(1).map((speed, i) => Math.abs(speed - speeds[i]!));
    // Evenly it would be 4 pixels per frame, all at once.
    expect(Math.max(...changes)).toBeLessThan(1);
    expect(keys[0]!.easing).toBe("hold");
    expect(keys.length).toBeLessThanOrEqual(5);
  });

  test("lead to the next one as the editor says, with no key in between", () => {
    const { keys, windows } = solve([key(150, 700, "ease"), key(200, 1200)]);
    for (let frame = 150; frame <= 200; frame++) {
      expect(windows[frame - 100]!.x).toBeCloseTo(700 + 500 * ease("ease", (frame - 150) / 50), 6);
    }
    expect(keys.filter(({ frame }) => frame >= 150 && frame <= 200).map(({ frame, by }) => [frame, by])).toEqual([
      [150, "hand"],
      [200, "hand"],
    ]);
  });

  test("hold to the next one and jump there, or to the end of the shot", () => {
    const { windows } = solve([key(150, 700, "hold"), key(180, 1200), key(250, 900, "hold")]);
    expect([149, 150, 179, 180].map((frame) => windows[frame - 100]!.x).slice(1)).toEqual([700, 700, 1200]);
    expect(new Set(windows.slice(150).map(({ x }) => x))).toEqual(new Set([900]));
  });

  test("leave it to the solver where they say nothing, or where no other key follows", () => {
    const plain = solve([key(150, 900), key(200, 1200)]);
    expect(solve([key(150, 900), key(200, 1200, "linear")])).toEqual(plain);
    expect(solve([key(100, 700, "hold"), key(101, 720), key(299, 1300, "hold")]).windows).toHaveLength(200);
  });

  test("go along a curve of the editor's own", () => {
    const curve = curveOf([0.8, 0, 1, 0.2]);
    const { windows } = solve([key(150, 700, curve), key(200, 1200)]);
    expect(windows[150 - 100 + 25]!.x).toBeCloseTo(700 + 500 * ease(curve, 0.5), 6);
    expect(ease(curve, 0.5)).toBeLessThan(0.1);
    expect(windows[200 - 100]!.x).toBe(1200);
  });

  test("are what the keys give at every frame", () => {
    const { keys, windows } = solve([key(120, 600, "linear"), key(160, 1000, "hold"), key(220, 1100)]);
    windows.forEach(({ x }, i) => expect(windowAt(keys, 100 + i).x).toBeCloseTo(x, 6));
  });
});

describe("a key that is copied to another version", () => {
  test("has the subject at the same share of the window", () => {
    const copied = copyKey(key(7, 900, "ease"), TALL, SQUARE, wholeOf(HD), { x: 800, y: 400 });
    const share = (800 - (900 - 607.5 / 2)) / 607.5;
    expect(copied).toMatchObject({ frame: 7, easing: "ease", y: 540, height: 1080 });
    expect((800 - (copied.x - 540)) / 1080).toBeCloseTo(share);
  });

  test("has the same zoom, stays in the picture, and goes around the same middle without a subject", () => {
    const copied = copyKey(key(7, 300, null, 540), TALL, SQUARE, wholeOf(HD), null);
    expect(copied).toEqual({ pane: 0, frame: 7, easing: null, x: 300, y: 540, height: 540 });
    expect(copyKey(key(7, 310), TALL, SQUARE, wholeOf(HD), null).x).toBe(540);
  });
});
