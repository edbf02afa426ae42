import { clamped } from "../numbers/clamped";
import { expect, test } from "@jest/globals";
import { fill } from "../composition/composition";
import type { Key } from "../path/keys";
import type { Track } from "../subjects/tracking/track";
import { chartMoments, figuresOf, measureShot } from "./measures";

const TALL = { width: 1080, height: 1920 };
const RANGE = { start: 100, end: 200 };
/** Windows are 405 wide and 720 high: enlarged 2.67 times. */
const at = (x: (i: number) => number) => (frame: number) => fill({ x: x(frame - 100), y: 360, height: 720 }, TALL);
const face = (x: number, y = 200): Track => ({
  id: "face",
  kind: "face",
  start: 100,
  confidence: 1,
  boxes: Array.from({ length: 100 }, () => ({ x, y, width: 60, height: 80 })),
});
const KEYS: Key[] = [
  { frame: 100, x: 500, y: 360, height: 720, easing: "hold", by: "solver" },
  { frame: 150, x: 500, y: 360, height: 720, easing: "hold", by: "hand" },
];

test("a window at rest: nothing moves, and what is inside is inside", () => {
  const measures = measureShot(
    RANGE,
    [RANGE],
    face(470),
    at(() => 500),
    25,
  );
  expect([measures.inside[0], measures.speed[1], measures.jerk[3]]).toEqual([1, 0, 0]);
  expect(measures.scale[50]).toBeCloseTo(8 / 3, 5);
  expect(figuresOf([{ measures, keys: KEYS, kept: [RANGE] }])).toEqual({
    shots: 1,
    keys: { solver: 1, hand: 1 },
    inside: 1,
    headsCut: 0,
    longestFastMove: null,
    leastResolution: expect.closeTo(3 / 8, 5),
  });
});

test("speeds in width per second, and the longest move that is fast", () => {
  // 405 pixels per second for ten frames, then at rest.
  const x = (i: number) => 500 + 16.2 * clamped(i - 20, 0, 10);
  const measures = measureShot(RANGE, [RANGE], null, at(x), 25);
  expect(measures.speed[25]).toBeCloseTo(1, 5);
  expect(measures.jerk[21]).toBeCloseTo(25 * 25, 3);
  expect(figuresOf([{ measures, keys: [], kept: [RANGE] }])).toMatchObject({
    longestFastMove: { start: 121, end: 131 },
    inside: null,
  });
});

test("a subject half outside, and a head that is cut off", () => {
  const half = measureShot(
    RANGE,
    [RANGE],
    face(672.5),
    at(() => 500),
    25,
  );
  expect(half.inside[0]).toBeCloseTo(0.5, 5);
  const low = () => fill({ x: 500, y: 400, height: 560 }, TALL);
  const cut = measureShot(RANGE, [RANGE], face(470, 100), low, 25);
  expect(figuresOf([{ measures: cut, keys: [], kept: [RANGE] }]).headsCut).toBe(100);
});

test("nothing is measured where nothing is shown, and no speed across what is left out", () => {
  const kept = [
    { start: 100, end: 140 },
    { start: 160, end: 200 },
  ];
  const measures = measureShot(
    RANGE,
    kept,
    face(470),
    at((i) => (i < 50 ? 500 : 600)),
    25,
  );
  expect([measures.inside[50], measures.speed[60], measures.speed[61]]).toEqual([NaN, NaN, 0]);
});

test("a chart's moment is the worst of its frames", () => {
  const measures = measureShot(
    RANGE,
    [RANGE],
    face(470),
    at((i) => (i === 57 ? 700 : 500)),
    25,
  );
  const moments = chartMoments([measures], 300, 30);
  expect(moments).toHaveLength(30);
  expect(moments[0]).toEqual({ frame: 0, inside: null, speed: null, jerk: null, scale: null });
  expect(moments[15]!.inside).toBeLessThan(0.6);
  expect(moments[15]!.speed).toBeGreaterThan(10);
  expect([moments[12]!.inside, moments[12]!.speed]).toEqual([1, 0]);
});
