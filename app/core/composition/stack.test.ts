import { describe, expect, test } from "@jest/globals";
import { LEAST_SHARE, placeBoxes, STACK, Stack, stackBoxes, withSwapped, withBorder, withPanes } from "./stack";

const TALL = { width: 1080, height: 1920 };
const WIDE = { width: 1920, height: 1080 };
const shares = ({ places }: Stack) => places.map(({ share }) => Math.round(100 * share));

describe("a stack", () => {
  test("divides a high frame from top to foot, and a wide one from left to right", () => {
    expect(stackBoxes(STACK, TALL)).toEqual([
      { x: 0, y: 0, width: 1080, height: 960 },
      { x: 0, y: 960, width: 1080, height: 960 },
    ]);
    expect(stackBoxes(STACK, WIDE)[1]).toEqual({ x: 960, y: 0, width: 960, height: 1080 });
  });

  test("leaves nothing but the gap between its panes, and meets on even pixels", () => {
    for (const gap of [0, 0.007, 0.06]) {
      const boxes = placeBoxes({ ...withPanes(STACK, 3), gap }, TALL);
      const between = boxes.slice(1).map(({ y }, i) => y - (boxes[i]!.y + boxes[i]!.height));
      expect(new Set(between).size).toBe(1);
      expect(Math.abs(between[0]! - gap * 1920)).toBeLessThanOrEqual(1);
      expect(boxes.at(-1)!.y + boxes.at(-1)!.height).toBe(1920);
      expect(boxes.every(({ y, height }) => y % 2 === 0 && height % 2 === 0)).toBe(true);
    }
  });

  test("has panes that change places and keep their numbers", () => {
    const other = withSwapped(withBorder(STACK, 0, 0.6), 0);
    expect(other.places.map(({ pane }) => pane)).toEqual([1, 0]);
    expect(stackBoxes(other, TALL)[0]).toMatchObject({ y: 1152, height: 768 });
    expect(withSwapped(other, 0)).toEqual(withBorder(STACK, 0, 0.6));
  });

  test("has borders that move between the two panes beside them only", () => {
    const three = withPanes(STACK, 3);
    expect(shares(withBorder(three, 0, 0.2))).toEqual([20, 47, 33]);
    expect(shares(withBorder(three, 1, 0.8))).toEqual([33, 47, 20]);
    expect(shares(withBorder(three, 0, -1))).toEqual([100 * LEAST_SHARE, 55, 33]);
    expect(shares(withBorder(three, 1, 2))).toEqual([33, 55, 100 * LEAST_SHARE]);
  });

  test("has two panes or three, each once", () => {
    const places = (...panes: number[]) => ({ ...STACK, places: panes.map((pane) => ({ pane, share: 0.5 })) });
    expect([[0], [0, 0], [0, 2], [0, 1, 2, 1]].map((panes) => Stack.safeParse(places(...panes)).success)).toEqual([
      false,
      false,
      false,
      false,
    ]);
    expect(Stack.safeParse(places(2, 0, 1)).success).toBe(true);
  });
});
