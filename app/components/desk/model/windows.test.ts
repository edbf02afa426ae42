import { describe, expect, test } from "@jest/globals";
import type { FramedShot } from "~/core/path/shot-framing";
import { compose, type ShownAt } from "~/core/composition/composition";
import { layOut, WHOLE } from "~/core/composition/layout";
import { STACK } from "~/core/composition/stack";
import { wholeOf } from "~/core/geometry/box";
import { USUAL_FRAMING } from "~/core/path/framing-settings";
import { freeAxes, shownOfShots, windowOfShots } from "./windows";

const HD = { width: 1920, height: 1080 };
const TALL = { width: 1080, height: 1920 };
const settings = USUAL_FRAMING;
const CENTRE = { x: 960, y: 540, height: 1080 };
const framed = (start: number, places: number[], height = 1080) =>
  ({
    keys: places.map((x, i) => ({ frame: start + i, x, y: 540, height, easing: "linear", by: "solver" })),
    windows: places.map((x) => ({ x, y: 540, height })),
  }) as unknown as FramedShot;
const shots = [
  { start: 0, end: 3, active: null, pane: 0, handKeys: [], settings, framed: framed(0, [400, 410, 420]) },
  {
    start: 3,
    end: 6,
    active: null,
    pane: 0,
    settings,
    framed: null,
    handKeys: [{ pane: 0, frame: 4, x: 900, y: 540, height: 1080, easing: null }],
  },
];

describe("the window on the desk", () => {
  test("is where the path has it, or a key that has just been placed; without a path in the middle", () => {
    const at = (frame: number) => windowOfShots(shots, frame, HD, TALL).x;
    expect([0, 2, 3, 4, 5].map(at)).toEqual([400, 420, 960, 900, 960]);
    expect(at(99)).toBe(960);
  });

  test("has the shape of the pane that it is shown in", () => {
    const whole = shots.map((shot) => ({ ...shot, framed: null, settings: { ...settings, layout: WHOLE } }));
    expect(windowOfShots(whole, 4, HD, TALL)).toEqual({ x: 960, y: 540, height: 1080 });
    expect(freeAxes(whole, HD, TALL)).toEqual({ x: false, y: false });
    const half = whole.map((shot) => ({ ...shot, settings: { ...settings, layout: { ...WHOLE, amount: 0.5 } } }));
    expect(freeAxes(half, HD, TALL)).toEqual({ x: true, y: false });
  });

  test("is the one of the pane that is selected; the others stay where they are", () => {
    const stacked = shots.map((shot) => ({ ...shot, framed: null, pane: 1, settings: { ...settings, layout: STACK } }));
    expect(windowOfShots(stacked, 4, HD, TALL)).toMatchObject({ x: 900, height: 1080 });
    const shown = (known: ShownAt | null) =>
      shownOfShots([{ ...stacked[1]!, shown: known }], 4, HD, TALL).panes.map(({ source }) => source.x);
    expect(shown(null)).toEqual([960 - 607.5, 900 - 607.5]);
    const windows = [{ x: 700, y: 540, height: 1080 }, CENTRE];
    expect(shown(() => compose(windows, layOut({ ...settings, layout: STACK }, wholeOf(HD), TALL), TALL))).toEqual([
      700 - 607.5,
      900 - 607.5,
    ]);
  });

  test("stays out of the film's own bars, also where a key was placed before they were found", () => {
    const active = { x: 0, y: 140, width: 1920, height: 800 };
    const boxed = shots.map((shot) => ({ ...shot, active, framed: null }));
    expect(windowOfShots(boxed, 4, HD, TALL)).toMatchObject({ x: 900, y: 540, height: 800 });
    expect(windowOfShots(boxed, 0, HD, TALL)).toEqual({ x: 960, y: 540, height: 800 });
  });

  test("moves on the axes on which it is smaller than the picture anywhere", () => {
    expect(freeAxes(shots, HD, TALL)).toEqual({ x: true, y: false });
    expect(freeAxes([{ ...shots[0]!, framed: framed(0, [400], 800) }], HD, TALL)).toEqual({ x: true, y: true });
    expect(freeAxes(shots, HD, HD)).toEqual({ x: false, y: false });
    const pillarboxed = { ...shots[1]!, active: { x: 656, y: 0, width: 608, height: 1080 } };
    expect(freeAxes([pillarboxed], HD, TALL)).toEqual({ x: false, y: false });
    expect(freeAxes([], TALL, { width: 500, height: 500 })).toEqual({ x: false, y: true });
  });
});
