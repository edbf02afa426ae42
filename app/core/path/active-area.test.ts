import { describe, expect, test } from "@jest/globals";
import { framingOf } from "../../../tests/support/shot-framing";
import { boxContains } from "../geometry/box";
import { aspectRatio, windowBox } from "../geometry/crop-window";
import type { Track } from "../subjects/tracking/track";
import type { ShotFraming } from "./shot-framing";
import { frameShot } from "./solve-version";
import { frameShots } from "./version-paths";

const PICTURE = { width: 1920, height: 1080 };
const TALL = { width: 1080, height: 1920 };
const RATE = { num: 25, den: 1 };
const ACTIVE = { x: 0, y: 140, width: 1920, height: 800 };

const walker: Track = {
  id: "walker",
  kind: "face",
  start: 0,
  confidence: 0.9,
  boxes: Array.from({ length: 50 }, (_, i) => ({ x: 300 + 20 * i, y: 300, width: 120, height: 160 })),
};
const shot = (change: Partial<ShotFraming> = {}): ShotFraming =>
  framingOf({ start: 0, end: 50 }, { tracks: [walker], active: ACTIVE, ...change });

describe("a picture with bars of its own", () => {
  test("never shows them, and follows as if what is between them were all", () => {
    const framed = frameShot(shot(), PICTURE, TALL, RATE);
    for (const window of framed.windows) {
      expect(boxContains(ACTIVE, windowBox(window, aspectRatio(TALL)), 1e-6)).toBe(true);
    }
    const moved = { ...walker, boxes: walker.boxes.map((box) => box && { ...box, y: box.y - ACTIVE.y }) };
    const small = frameShot(shot({ tracks: [moved], active: null }), ACTIVE, TALL, RATE);
    expect(framed.windows.map(({ x, height }) => [x, height])).toEqual(
      small.windows.map(({ x, height }) => [x, height]),
    );
    expect(framed.keys.map(({ y }) => y)).toEqual(small.keys.map(({ y }) => y + ACTIVE.y));
  });

  test("is not left for a hand key that was placed before they were found", () => {
    const key = { pane: 0, frame: 10, x: 960, y: 540, height: 1080, easing: null };
    const { windows } = frameShot(shot({ handKeys: [key] }), PICTURE, TALL, RATE);
    expect(windows[10]).toMatchObject({ x: 960, y: 540, height: 800 });
  });

  test("has nothing to follow in them", () => {
    const logo: Track = {
      ...walker,
      id: "logo",
      boxes: walker.boxes.map(() => ({ x: 40, y: 20, width: 90, height: 90 })),
    };
    expect(frameShot(shot({ tracks: [logo] }), PICTURE, TALL, RATE).subjectId).toBeNull();
  });

  test("takes over where the shot before it leaves off, as far as its bars let it", () => {
    const second = shot({ range: { start: 50, end: 60 }, tracks: [], carry: true, rule: { kind: "none" } });
    const [first, next] = frameShots([shot({ active: null }), second], PICTURE, TALL, RATE);
    expect(next!.windows[0]!.x).toBeCloseTo(first!.windows.at(-1)!.x, 3);
    expect(next!.windows[0]!.height).toBeCloseTo(800, 6);
  });
});
