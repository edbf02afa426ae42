import { describe, expect, test } from "@jest/globals";
import { type Composition, compose, coversAll, fill, fromScaled, inSize, showsWhole } from "./composition";
import { wholeOf } from "../geometry/box";
import { USUAL_BACKDROP } from "./backdrop";
import { PLAIN_EDGE } from "./edge";
import { covering, layOut, WHOLE } from "./layout";
import { shownIn } from "./shown";

const TALL = { width: 1080, height: 1920 };
const WINDOW = { x: 960, y: 540, height: 1080 };
const STACK: Composition = {
  size: { width: 100, height: 200 },
  backdrop: null,
  panes: [
    { source: { x: 0, y: 0, width: 400, height: 400 }, target: { x: 0, y: 0, width: 100, height: 100 } },
    { source: { x: 500, y: 0, width: 200, height: 200 }, target: { x: 0, y: 100, width: 100, height: 100 } },
  ],
  layers: null,
};

describe("a composition", () => {
  test("fills the frame with the crop window", () => {
    const { size, panes } = fill(WINDOW, TALL);
    expect(size).toBe(TALL);
    expect(panes).toEqual([
      { source: { x: 656.25, y: 0, width: 607.5, height: 1080 }, target: { x: 0, y: 0, width: 1080, height: 1920 } },
    ]);
    expect(coversAll(fill(WINDOW, TALL), panes[0]!)).toBe(true);
    expect(coversAll(STACK, STACK.panes[0]!)).toBe(false);
  });

  test("shows a window in its pane before what is made of the middle of the picture", () => {
    const laidOut = layOut(
      { layout: WHOLE, backdrop: USUAL_BACKDROP, edge: PLAIN_EDGE },
      wholeOf({ width: 1920, height: 1080 }),
      TALL,
    );
    const { panes, backdrop } = fromScaled(compose([WINDOW], laidOut, TALL), 0.5);
    expect(panes[0]).toEqual({
      source: { x: 0, y: 0, width: 960, height: 540 },
      target: { x: 0, y: 656.25, width: 1080, height: 607.5 },
      edge: PLAIN_EDGE,
    });
    expect(backdrop).toEqual({ look: USUAL_BACKDROP, source: { x: 328.125, y: 0, width: 303.75, height: 540 } });
  });

  test("is drawn in another size, and from another size of source", () => {
    const small = inSize(STACK, { width: 50, height: 80 });
    expect(small.panes[1]).toEqual({
      source: STACK.panes[1]!.source,
      target: { x: 0, y: 40, width: 50, height: 40 },
    });
    expect(fromScaled(STACK, 0.5).panes[1]).toEqual({
      source: { x: 250, y: 0, width: 100, height: 100 },
      target: STACK.panes[1]!.target,
    });
  });

  test("shows a thing whole if one of its panes does", () => {
    expect(showsWhole(STACK, { x: 520, y: 20, width: 100, height: 100 })).toBe(true);
    expect(showsWhole(STACK, { x: 380, y: 20, width: 140, height: 100 })).toBe(false);
    expect(showsWhole(STACK, { x: 380, y: 20, width: 25, height: 100 }, 5)).toBe(true);
  });
});

test("what is shown is asked for by the film's frames, in any order", () => {
  const windows = (x: number) => Array.from({ length: 10 }, (_, i) => ({ ...WINDOW, x: x + i }));
  const shown = shownIn(
    [
      { range: { start: 10, end: 20 }, windows: windows(400), laidOut: covering(TALL) },
      { range: { start: 30, end: 40 }, windows: windows(900), laidOut: covering(TALL) },
    ],
    TALL,
    25,
  );
  const middle = (frame: number) => {
    const { source } = shown(frame).panes[0]!;
    return source.x + source.width / 2;
  };
  expect([12, 35, 10, 39].map(middle)).toEqual([402, 905, 400, 909]);
  expect(() => shown(25)).toThrow("frame 25");
});
