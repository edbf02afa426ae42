import { describe, expect, test } from "@jest/globals";
import { framesAround, fromPoint, type LaneGeometry, toPoint } from "./lane-geometry";

const under: LaneGeometry = { axis: "x", origin: 55, scale: 0.38, pxPerFrame: 1.1 };
const beside: LaneGeometry = { ...under, axis: "y" };

describe("the lane", () => {
  test("puts a position level with the picture's, and time down or to the right", () => {
    expect(toPoint(under, 1000, 30)).toEqual({ x: 55 + 380, y: 33 });
    expect(toPoint(beside, 1000, 30)).toEqual({ x: 33, y: 55 + 380 });
  });

  test("takes a point back to the position and the frame it stands for", () => {
    for (const geometry of [under, beside]) {
      const { value, frame } = fromPoint(geometry, toPoint(geometry, 712.5, 481));
      expect(value).toBeCloseTo(712.5, 9);
      expect(frame).toBe(481);
    }
  });

  test("is drawn for more than a screen around the playhead, and not anew for every frame", () => {
    const ranges = Array.from({ length: 400 }, (_, frame) => framesAround(frame, 300, 1.5));
    ranges.forEach(({ start, end }, frame) => {
      expect(start).toBeLessThanOrEqual(frame - 0.3 * 200);
      expect(end).toBeGreaterThanOrEqual(frame + 0.7 * 200);
    });
    expect(new Set(ranges.map(({ start }) => start)).size).toBeLessThan(8);
  });
});
