import { describe, expect, test } from "@jest/globals";
import { draggedWindow, snapsOf } from "./window-drag";

const AREA = { x: 0, y: 0, width: 1920, height: 1080 };
const ASPECT = 9 / 16;
const FROM = { x: 960, y: 540, height: 720 };
const SUBJECT = { x: 1200, y: 300, width: 100, height: 200 };
const drag = (x: number, y: number, more: Partial<Parameters<typeof draggedWindow>[0]> = {}) =>
  draggedWindow({ from: FROM, by: { x, y }, isHeld: false, snaps: [], reach: 10, area: AREA, aspect: ASPECT, ...more });

describe("a dragged window", () => {
  test("goes where the pointer goes, or along one axis", () => {
    expect(drag(100, 30)).toMatchObject({ window: { x: 1060, y: 570, height: 720 }, isAtLimit: false });
    expect(drag(100, 30, { isHeld: true }).window).toEqual({ x: 1060, y: 540, height: 720 });
    expect(drag(10, 30, { isHeld: true }).window).toEqual({ x: 960, y: 570, height: 720 });
  });

  test("stops at the picture's edge, and gives a little there", () => {
    const { window, drawn, isAtLimit } = drag(2000, 0);
    expect(window.x).toBe(1920 - 405 / 2);
    expect(isAtLimit).toBe(true);
    expect(drawn.x - window.x).toBeCloseTo(0.04 * 405);
    expect(drag(770, 0).drawn.x - drag(770, 0).window.x).toBeCloseTo(0.2 * (1730 - 1717.5));
  });

  test("snaps to its subject in the middle or at a third, and to where it was", () => {
    const snaps = snapsOf(SUBJECT, FROM, AREA, ASPECT);
    expect(drag(286, 40, { snaps }).window.x).toBe(1250);
    expect(drag(286 + 405 / 6, 40, { snaps }).window.x).toBeCloseTo(1250 + 405 / 6);
    expect(drag(6, 100, { snaps })).toMatchObject({ window: { x: 960 }, snapped: [{ axis: "x", at: 960 }] });
    expect(drag(150, 100, { snaps }).snapped).toEqual([]);
    expect(snapsOf(null, FROM, AREA, ASPECT)).toHaveLength(4);
  });
});
