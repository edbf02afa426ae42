import { describe, expect, test } from "@jest/globals";
import { boxCentre } from "../../geometry/box";
import { type Sweep, trackOfMarks } from "./follow-thing";
import { markedThings } from "./marked-things";
import { boxAt } from "../tracking/track";

const PICTURE = { width: 1000, height: 500 };
const RATE = { num: 25, den: 1 };
const SHOT = { start: 100, end: 200 };
const box = (x: number) => ({ x, y: 100, width: 40, height: 40 });
const sweep = (from: number, to: number, at: (frame: number) => number | null): Sweep => {
  const found: Sweep = new Map();
  for (let frame = from; frame !== to; frame += Math.sign(to - from)) {
    const x = at(frame);
    found.set(frame, x === null ? null : box(x));
  }
  return found;
};
const centreAt = (track: Parameters<typeof boxAt>[0], frame: number) => boxCentre(boxAt(track, frame)!).x;

describe("a track of marks", () => {
  test("meets every mark, and goes from what was seen forwards to what was seen backwards between two", () => {
    const marks = [
      { frame: 110, box: box(200) },
      { frame: 150, box: box(400) },
    ];
    // Going forwards it drifts off by 40 pixels until the second mark, going backwards by as much to the other side.
    const forwards = [sweep(111, 150, (f) => 200 + 6 * (f - 110)), sweep(151, 200, (f) => 400 + 5 * (f - 150))];
    const backwards = [sweep(109, 99, (f) => 200 + 5 * (f - 110)), sweep(149, 110, (f) => 400 + 6 * (f - 150))];
    const track = trackOfMarks("m", marks, forwards, backwards, SHOT, PICTURE, RATE);
    expect(boxAt(track, 110)).toEqual(box(200));
    expect(boxAt(track, 150)).toEqual(box(400));
    for (const frame of [101, 115, 130, 145, 190]) {
      expect(Math.abs(centreAt(track, frame) - 20 - (200 + 5 * (frame - 110)))).toBeLessThan(12);
    }
  });

  test("is null where neither way has seen it, and what one way lost the other may know", () => {
    const marks = [
      { frame: 100, box: box(100) },
      { frame: 199, box: box(300) },
    ];
    const forwards = [sweep(101, 199, (f) => (f < 140 ? 100 : null)), sweep(200, 200, () => null)];
    const backwards = [sweep(99, 99, () => null), sweep(198, 100, (f) => (f > 160 ? 300 : null))];
    const track = trackOfMarks("m", marks, forwards, backwards, SHOT, PICTURE, RATE);
    expect([120, 150, 180].map((frame) => boxAt(track, frame) !== null)).toEqual([true, false, true]);
    expect(track.confidence).toBeCloseTo(0.78, 1);
  });

  test("stays inside the picture", () => {
    const marks = [{ frame: 100, box: box(900) }];
    const track = trackOfMarks(
      "m",
      marks,
      [sweep(101, 200, (f) => 900 + 2 * (f - 100))],
      [new Map()],
      SHOT,
      PICTURE,
      RATE,
    );
    for (const found of track.boxes) if (found) expect(found.x + found.width).toBeLessThanOrEqual(1000.001);
    expect(boxAt(track, 199)).toBeNull();
  });
});

test("marks are of one thing in a shot, and what follows from them is told from other marks and cuts", () => {
  const marks = [
    { thing: "kite", frame: 150, box: box(1) },
    { thing: "dog", frame: 120, box: box(2) },
    { thing: "kite", frame: 110, box: box(3) },
    { thing: "kite", frame: 250, box: box(4) },
  ];
  const things = markedThings(marks, SHOT);
  expect(things.map(({ id, marks: own }) => [id, own.map(({ frame }) => frame)])).toEqual([
    ["mark-kite", [110, 150]],
    ["mark-dog", [120]],
  ]);
  expect(markedThings(marks, { ...SHOT, end: 180 })[0]!.basis).not.toBe(things[0]!.basis);
  expect(markedThings([...marks].reverse(), SHOT).find(({ id }) => id === "mark-kite")!.basis).toBe(things[0]!.basis);
});
