import { describe, expect, test } from "@jest/globals";
import { clipRanges, joinRanges, liesWithin, partsWithin, withoutRanges } from "./ranges";

const ranges = (...pairs: [number, number][]) => pairs.map(([start, end]) => ({ start, end }));

describe("ranges", () => {
  test("are joined whatever their order, and the empty ones left out", () => {
    expect(joinRanges(ranges([40, 50], [0, 10], [10, 20], [15, 18], [30, 30]))).toEqual(ranges([0, 20], [40, 50]));
    expect(joinRanges([])).toEqual([]);
  });

  test("are clipped to bounds", () => {
    expect(clipRanges(ranges([0, 20], [40, 50], [60, 70]), { start: 10, end: 45 })).toEqual(ranges([10, 20], [40, 45]));
  });

  test("lose what lies in others", () => {
    const film = ranges([0, 100]);
    expect(withoutRanges(film, ranges([0, 10], [20, 30], [95, 120]))).toEqual(ranges([10, 20], [30, 95]));
    expect(withoutRanges(film, [])).toEqual(film);
    expect(withoutRanges(ranges([0, 10], [20, 30]), ranges([5, 25]))).toEqual(ranges([0, 5], [25, 30]));
    expect(withoutRanges(film, ranges([0, 100]))).toEqual([]);
  });

  test("are told apart by what they lie in", () => {
    const shots = ranges([0, 20], [20, 50], [50, 60], [60, 90]);
    expect(partsWithin(ranges([5, 25], [30, 35], [55, 90]), shots)).toEqual([
      ranges([5, 20]),
      ranges([20, 25], [30, 35]),
      ranges([55, 60]),
      ranges([60, 90]),
    ]);
    expect(partsWithin([], shots)).toEqual([[], [], [], []]);
  });

  test("lie within others where all of their frames do", () => {
    expect(liesWithin(ranges([5, 20], [30, 40]), ranges([25, 50], [0, 10], [10, 25]))).toBe(true);
    expect(liesWithin(ranges([5, 20], [30, 51]), ranges([0, 25], [25, 50]))).toBe(false);
    expect(liesWithin([], [])).toBe(true);
  });
});
