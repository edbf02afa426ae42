import { describe, expect, test } from "@jest/globals";
import { facingOf, facingThrough } from "./facing";

/** A head turned by an angle, and tilted by another, as a camera far away sees it. */
function landmarks(turn: number, tilt = 0) {
  const at = (x: number, y: number, depth: number) => {
    const across = x * Math.cos(turn) + depth * Math.sin(turn);
    return {
      x: 300 + across * Math.cos(tilt) - y * Math.sin(tilt),
      y: 200 + across * Math.sin(tilt) + y * Math.cos(tilt),
    };
  };
  return { rightEye: at(-32, 0, 0), leftEye: at(32, 0, 0), nose: at(0, 40, 30), mouth: at(0, 70, 10) };
}

describe("facing", () => {
  test.each([-1.2, -0.5, 0, 0.3, 0.9])("is the sine of the head's turn (%d)", (turn) => {
    expect(facingOf(landmarks(turn))).toBeCloseTo(Math.sin(turn), 1);
    expect(facingOf(landmarks(turn, 0.4))).toBeCloseTo(Math.sin(turn), 1);
  });

  test("through a shot is the mean of what was seen around each frame", () => {
    const seen = [
      { frame: 10, side: 0.2 },
      { frame: 14, side: 0.6 },
      { frame: 30, side: -1 },
    ];
    const through = facingThrough(seen, { start: 8, end: 34 }, 4);
    expect(through[0]).toBeCloseTo(0.2);
    expect(through[4]).toBeCloseTo(0.4);
    expect(through[10]).toBeCloseTo(0.6);
    expect(through[14]).toBeNaN();
    expect(through[25]).toBeCloseTo(-1);
  });
});
