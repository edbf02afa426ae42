import { describe, expect, it } from "@jest/globals";
import { gapsIn, isReached, nextGap } from "./passes";

const range = (start: number, end: number) => ({ start, end });

describe("the order of an analysis", () => {
  it("leaves what was analysed out, in whatever order that came", () => {
    expect(gapsIn(100, [])).toEqual([range(0, 100)]);
    expect(gapsIn(100, [range(60, 80), range(0, 20), range(20, 30)])).toEqual([range(30, 60), range(80, 100)]);
    expect(gapsIn(100, [range(0, 100)])).toEqual([]);
  });

  it("never goes on over a border", () => {
    expect(gapsIn(100, [range(10, 20)], [40, 70])).toEqual([
      range(0, 10),
      range(20, 40),
      range(40, 70),
      range(70, 100),
    ]);
  });

  it("begins where the editor is, goes on to the end, and then takes the rest", () => {
    const gaps = [range(0, 30), range(50, 60), range(80, 100)];
    expect(nextGap(gaps, null)).toEqual(range(0, 30));
    expect(nextGap(gaps, 55)).toEqual(range(50, 60));
    expect(nextGap(gaps, 40)).toEqual(range(50, 60));
    expect(nextGap(gaps, 60)).toEqual(range(80, 100));
    expect(nextGap(gaps.slice(0, 1), 60)).toEqual(range(0, 30));
    expect(nextGap([], 60)).toBeUndefined();
  });

  it("stays where it is for a frame that it comes to soon, and for one that is done", () => {
    const analysed = [range(0, 30)];
    expect(isReached(10, analysed, range(30, 100), 60)).toBe(true);
    expect(isReached(50, analysed, range(30, 100), 60)).toBe(true);
    expect(isReached(61, analysed, range(30, 100), 60)).toBe(false);
    expect(isReached(50, analysed, range(70, 100), 90)).toBe(false);
  });
});
