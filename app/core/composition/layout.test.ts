import { describe, expect, test } from "@jest/globals";
import { wholeOf } from "../geometry/box";
import { USUAL_BACKDROP } from "./backdrop";
import { PLAIN_EDGE } from "./edge";
import { STACK } from "./stack";
import { covering, FILL, layOut, type Layout, paneBox, WHOLE } from "./layout";

const HD = { width: 1920, height: 1080 };
const TALL = { width: 1080, height: 1920 };
const WIDE = { width: 2520, height: 1080 };

const laidOut = (layout: Layout, area = HD, frame = TALL) =>
  layOut({ layout, backdrop: USUAL_BACKDROP, edge: PLAIN_EDGE }, wholeOf(area), frame);

describe("the whole picture", () => {
  test("is as large as the frame lets it, in the middle or where it is placed", () => {
    expect(paneBox(WHOLE, HD, TALL)).toEqual({ x: 0, y: 656.25, width: 1080, height: 607.5 });
    expect(paneBox({ ...WHOLE, place: 0 }, HD, TALL).y).toBe(0);
    expect(paneBox({ ...WHOLE, place: 1 }, HD, TALL).y).toBe(1312.5);
    expect(paneBox(WHOLE, HD, WIDE)).toEqual({ x: 300, y: 0, width: 1920, height: 1080 });
  });

  test("is on the way to filling the frame where less of it is wanted", () => {
    expect(paneBox({ ...WHOLE, amount: 0.5 }, HD, TALL).height).toBe((607.5 + 1920) / 2);
    expect(paneBox({ ...WHOLE, amount: 0 }, HD, TALL)).toEqual(wholeOf(TALL));
  });

  test("has its backdrop of the middle of the picture, in the frame's shape; none where it covers the frame", () => {
    expect(laidOut(WHOLE).backdrop).toEqual({
      look: USUAL_BACKDROP,
      source: { x: 656.25, y: 0, width: 607.5, height: 1080 },
    });
    expect(laidOut(FILL)).toEqual(covering(TALL));
    expect(laidOut(WHOLE, { width: 540, height: 960 })).toEqual(covering(TALL));
    const zoomed = { layout: WHOLE, backdrop: { ...USUAL_BACKDROP, zoom: 2 }, edge: PLAIN_EDGE };
    expect(layOut(zoomed, wholeOf(HD), TALL).backdrop?.source).toEqual({
      x: 808.125,
      y: 270,
      width: 303.75,
      height: 540,
    });
  });

  test("panes of a stack have their gap's colour behind them, and nothing without a gap", () => {
    expect(laidOut(STACK)).toMatchObject({ panes: [{ height: 960 }, { y: 960 }], backdrop: null });
    expect(laidOut({ ...STACK, gap: 0.02 }).backdrop?.look).toEqual({ kind: "colour", colour: STACK.colour });
  });
});
