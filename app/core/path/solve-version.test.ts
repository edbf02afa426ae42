import { USUAL_FRAMING } from "./framing-settings";
import { describe, expect, test } from "@jest/globals";
import { framingOf } from "../../../tests/support/shot-framing";
import { STACK, withPanes } from "../composition/stack";
import { AUTO } from "../subjects/choosing/follow-rule";
import { boxContains } from "../geometry/box";
import { windowBox } from "../geometry/crop-window";
import type { Track } from "../subjects/tracking/track";
import { windowAt } from "./keys";
import type { ShotFraming } from "./shot-framing";
import { frameShots } from "./version-paths";

const PICTURE = { width: 1280, height: 720 };
const TALL = { width: 1080, height: 1920 };
const RATE = { num: 25, den: 1 };

function shot(start: number, end: number, x: (frame: number) => number, more: Partial<ShotFraming> = {}): ShotFraming {
  const track: Track = {
    id: `t${start}`,
    kind: "face",
    start,
    boxes: Array.from({ length: end - start }, (_, i) => ({ x: x(start + i) - 40, y: 200, width: 80, height: 100 })),
    confidence: 0.9,
  };
  return framingOf({ start, end }, { settings: { ...USUAL_FRAMING, movement: "glide" }, tracks: [track], ...more });
}

describe("shots that follow one another", () => {
  test("each have a path of their own, as long as they are", () => {
    const shots = [shot(0, 40, () => 300), shot(40, 90, () => 900)];
    const [first, second] = frameShots(shots, PICTURE, TALL, RATE);
    expect([first!.windows.length, second!.windows.length]).toEqual([40, 50]);
    expect(Math.abs(second!.windows[0]!.x - 900)).toBeLessThan(60);
    expect([first!.subjectId, second!.subjectId]).toEqual(["t0", "t40"]);
  });

  test("may jump where a segment is left out, and what is left out decides nothing", () => {
    // On the left, then on the right; what lies between is left out.
    const at = (frame: number) => (frame < 30 ? 300 : frame < 60 ? 600 : 950);
    const kept = [
      { start: 0, end: 30 },
      { start: 60, end: 90 },
    ];
    const [framed] = frameShots([shot(0, 90, at, { kept })], PICTURE, TALL, RATE);
    expect(framed!.windows).toHaveLength(90);
    for (let i = 0; i < 30; i++) expect(Math.abs(framed!.windows[i]!.x - 300)).toBeLessThan(30);
    for (let i = 60; i < 90; i++) expect(Math.abs(framed!.windows[i]!.x - 950)).toBeLessThan(30);
    expect(framed!.spans).toMatchObject([{ start: 0, end: 90, trackId: "t0" }]);
    for (const frame of [29, 59, 60, 89])
      expect(windowAt(framed!.keys, frame).x).toBeCloseTo(framed!.windows[frame]!.x);
  });

  test("goes on from the end of what is shown of the shot before", () => {
    const before = shot(0, 60, (frame) => (frame < 30 ? 400 : 900), { kept: [{ start: 0, end: 30 }] });
    const next = shot(60, 120, () => 900, { carry: true, kept: [{ start: 80, end: 120 }] });
    const [first, second] = frameShots([before, next], PICTURE, TALL, RATE);
    expect(second!.windows[20]!.x).toBeCloseTo(first!.windows[29]!.x, 3);
  });

  test("the window goes on from where it was where it is to be carried over", () => {
    const shots = [shot(0, 40, () => 500), shot(40, 140, () => 640, { carry: true })];
    const [first, second] = frameShots(shots, PICTURE, TALL, RATE);
    expect(second!.windows[0]!.x).toBeCloseTo(first!.windows.at(-1)!.x, 2);
    // It gets to the new place, and the face is inside when it has.
    expect(Math.abs(second!.windows.at(-1)!.x - 640)).toBeLessThan(70);
    expect(boxContains(windowBox(second!.windows.at(-1)!, 9 / 16), { x: 600, y: 200, width: 80, height: 100 })).toBe(
      true,
    );
  });

  test("a window that nobody has told how to move comes over to somebody who sits, and rests there", () => {
    const auto = { settings: { ...USUAL_FRAMING, movement: "auto" as const } };
    const shots = [shot(0, 40, () => 300, auto), shot(40, 140, () => 900, { ...auto, carry: true })];
    const [first, second] = frameShots(shots, PICTURE, TALL, RATE);
    expect([first!.movement, second!.movement]).toEqual(["still", "glide"]);
    expect(second!.movementReason).toBe("continues from the previous shot");
    expect(second!.windows[0]!.x).toBeCloseTo(first!.windows[0]!.x, 2);
    for (const { x } of second!.windows.slice(40)) expect(Math.abs(x - 900)).toBeLessThan(80);
  });

  test("a hand key on the first frame wins over what is carried", () => {
    const key = { pane: 0, frame: 40, x: 900, y: 360, height: 720, easing: null };
    const shots = [shot(0, 40, () => 300), shot(40, 90, () => 400, { carry: true, handKeys: [key] })];
    const [, second] = frameShots(shots, PICTURE, TALL, RATE);
    expect(second!.windows[0]!.x).toBeCloseTo(900, 2);
  });

  test("the first shot has nothing to be carried from", () => {
    const [only] = frameShots([shot(0, 40, () => 700, { carry: true })], PICTURE, TALL, RATE);
    expect(Math.abs(only!.windows[0]!.x - 700)).toBeLessThan(60);
  });

  test("what is rendered is what the keys give, inside the picture, at any frame", () => {
    const walk = shot(0, 120, (frame) => 200 + frame * 7);
    for (const movement of ["still", "glide", "chase"] as const) {
      const [framed] = frameShots([{ ...walk, settings: { ...USUAL_FRAMING, movement } }], PICTURE, TALL, RATE);
      framed!.windows.forEach((window, i) => {
        expect(windowAt(framed!.keys, i).x).toBeCloseTo(window.x, 3);
        const { x, width } = windowBox(window, 9 / 16);
        expect(x).toBeGreaterThanOrEqual(-1e-6);
        expect(x + width).toBeLessThanOrEqual(PICTURE.width + 1e-6);
      });
      const moves = new Set(framed!.windows.map(({ x }) => x.toFixed(3))).size;
      if (movement === "still") expect(moves).toBe(1);
      else expect(moves).toBeGreaterThan(20);
    }
  });
});

describe("a shot in several panes", () => {
  const settings = { ...USUAL_FRAMING, layout: STACK };
  const pane = { settings, rule: AUTO, handKeys: [] };
  const two = (start: number, end: number, more: Partial<ShotFraming> = {}) => {
    const [left, right] = [shot(start, end, () => 300), shot(start, end, () => 1000)].map(({ tracks }) => tracks[0]!);
    const tracks = [left!, { ...right!, id: `r${start}` }];
    return shot(start, end, () => 0, { settings, tracks, others: [pane], ...more });
  };
  const middles = ({
    windows,
    others,
  }: {
    windows: { x: number }[];
    others: readonly { windows: { x: number }[] }[];
  }) => [windows, ...others.map((other) => other.windows)].map((all) => Math.round(all[0]!.x));

  test("has a path in each, and none follows by itself whom another follows", () => {
    const [framed] = frameShots([two(0, 40)], PICTURE, TALL, RATE);
    expect(new Set([framed!.subjectId, framed!.others[0]!.subjectId])).toEqual(new Set(["t0", "r0"]));
    const [first, second] = middles(framed!);
    expect(Math.abs(first! - second!)).toBeGreaterThan(400);
    // Each window has the shape of its pane: 1080 × 960.
    expect(framed!.others[0]!.windows[0]).toMatchObject({ y: 360, height: 720 });
    const rule = { kind: "track" as const, trackId: framed!.subjectId! };
    const [same] = frameShots([two(0, 40, { others: [{ ...pane, rule }] })], PICTURE, TALL, RATE);
    expect(middles(same!)[0]).toBe(middles(same!)[1]);
  });

  test("has keys in each that are nothing to the others", () => {
    const key = { pane: 1, frame: 0, x: 640, y: 360, height: 500, easing: "hold" as const };
    const layout = withPanes(STACK, 3);
    const others = [{ ...pane, handKeys: [key] }, pane];
    const [framed] = frameShots([two(0, 40, { settings: { ...settings, layout }, others })], PICTURE, TALL, RATE);
    expect(framed!.others[0]!.windows.every(({ x, height }) => x === 640 && height === 500)).toBe(true);
    expect(framed!.windows[0]!.height).toBeGreaterThan(600);
    // Nobody is left for the third.
    expect([framed!.laidOut.panes.length, framed!.others[1]!.subjectId]).toEqual([3, null]);
  });

  test("goes on from the shot before in each of them", () => {
    const key = { pane: 1, frame: 0, x: 800, y: 360, height: 720, easing: "hold" as const };
    const before = two(0, 40, { others: [{ ...pane, handKeys: [key] }] });
    const [first, second] = frameShots([before, two(40, 80, { carry: true })], PICTURE, TALL, RATE);
    expect(first!.others[0]!.windows.at(-1)!.x).toBe(800);
    expect(second!.others[0]!.windows[0]!.x).toBeCloseTo(800, 2);
    expect(second!.windows[0]!.x).toBeCloseTo(first!.windows.at(-1)!.x, 2);
  });
});
