import { describe, expect, test } from "@jest/globals";
import { edgeOf, isPlain, PLAIN_EDGE } from "./edge";

const FRAME = { width: 200, height: 400 };
/** From side to side of the frame, with room above and below. */
const PANE = { x: 0, y: 100, width: 200, height: 120 };
const INNER = { x: 40, y: 100, width: 120, height: 120 };

describe("the edge of a pane", () => {
  test("is where it is between pixels, and plain unless it is asked for", () => {
    const { cover, shadow } = edgeOf(PLAIN_EDGE, { ...PANE, y: 100.25 }, FRAME);
    expect([99.5, 100.5, 101.5, 150].map((y) => cover(100, y))).toEqual([0, 0.75, 1, 1]);
    expect(shadow(100, 95)).toBe(0);
    expect(isPlain(PLAIN_EDGE)).toBe(true);
    expect(isPlain({ look: "none", corner: 10 })).toBe(false);
  });

  test("fades towards the backdrop, and not where the frame ends", () => {
    const { cover } = edgeOf({ look: "feather", corner: 0 }, PANE, FRAME);
    expect(cover(100, 100.5)).toBeLessThan(0.1);
    expect(cover(100, 105)).toBeCloseTo(0.5, 5);
    expect(cover(100, 112)).toBe(1);
    expect(cover(0.5, 160)).toBe(1);
  });

  test("has a shadow that gets lighter away from it, and is nowhere beside it where the frame ends", () => {
    const { cover, shadow } = edgeOf({ look: "shadow", corner: 0 }, PANE, FRAME);
    expect(shadow(100, 99)).toBeGreaterThan(0.5);
    expect(shadow(100, 95)).toBeCloseTo(0.3, 5);
    expect(shadow(100, 89)).toBe(0);
    expect(shadow(1, 95)).toBeCloseTo(0.3, 5);
    expect(cover(100, 100.5)).toBe(1);
  });

  test("is round at the corners, as a share of its shorter side", () => {
    const { cover } = edgeOf({ look: "none", corner: 100 }, INNER, FRAME);
    expect(cover(44, 104)).toBe(0);
    expect(cover(100, 100.5)).toBeGreaterThan(0.9);
    expect(cover(100, 160)).toBe(1);
  });
});
