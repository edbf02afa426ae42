import { describe, expect, test } from "@jest/globals";
import { longHolds, type Stay } from "./long-holds";

const gain = (...parts: [frames: number, value: number][]) =>
  Float64Array.from(parts.flatMap(([frames, value]) => new Array<number>(frames).fill(value)));

/** The best row of states by trying all of them. */
function byTrial(gains: Float64Array[], price: number, least: number): number {
  const count = gains[0]!.length;
  const worth = (stays: Stay[]) =>
    stays.reduce(
      (sum, { start, end, state }) => sum + gains[state]!.slice(start, end).reduce((all, one) => all + one, 0),
      -price * (stays.length - 1),
    );
  const rows = (start: number, before: number, first: boolean): Stay[][] =>
    gains.flatMap((_, state) => {
      if (state === before) return [];
      const last = count - start >= (first ? 0 : least >> 1) ? [[{ start, end: count, state }]] : [];
      const longer: Stay[][] = [];
      for (let end = start + (first ? least >> 1 : least); end < count; end++)
        for (const rest of rows(end, state, false)) longer.push([{ start, end, state }, ...rest]);
      return [...last, ...longer];
    });
  return Math.max(...rows(0, -1, true).map(worth));
}

describe("long holds", () => {
  test("go over where that pays, at the frame where it begins to", () => {
    const stays = longHolds([gain([40, 3], [60, 1]), gain([40, 1], [60, 3])], 25, 20);
    expect(stays).toEqual([
      { start: 0, end: 40, state: 0 },
      { start: 40, end: 100, state: 1 },
    ]);
  });

  test("are put off as long as that costs nothing", () => {
    const stays = longHolds([gain([40, 3], [60, 1]), gain([60, 1], [40, 3])], 25, 20);
    expect(stays.map(({ start }) => start)).toEqual([0, 60]);
  });

  test("do not go over for a moment, nor back again at once", () => {
    const moment = [gain([40, 3], [8, 1], [52, 3]), gain([40, 1], [8, 3], [52, 1])];
    expect(longHolds(moment, 25, 20)).toEqual([{ start: 0, end: 100, state: 0 }]);
    const often = [0, 1].map((state) =>
      Float64Array.from({ length: 200 }, (_, i) => (((i >> 3) & 1) === state ? 9 : 0)),
    );
    for (const { start, end } of longHolds(often, 1, 50).slice(1, -1)) expect(end - start).toBeGreaterThanOrEqual(50);
  });

  test("are the best there are", () => {
    let seed = 7;
    const random = () => (seed = (seed * 48271) % 2147483647) / 2147483647;
    for (let trial = 0; trial < 40; trial++) {
      const gains = [0, 1, 2].map(() => Float64Array.from({ length: 11 }, () => Math.round(4 * random())));
      const stays = longHolds(gains, 2, 4);
      expect(stays[0]!.start).toBe(0);
      expect(stays.at(-1)!.end).toBe(11);
      stays.slice(1).forEach(({ start }, i) => expect(start).toBe(stays[i]!.end));
      const worth = stays.reduce(
        (sum, { start, end, state }) => sum + gains[state]!.slice(start, end).reduce((all, one) => all + one, 0),
        -2 * (stays.length - 1),
      );
      expect(worth).toBeCloseTo(byTrial(gains, 2, 4), 6);
    }
  });

  test("a range too short for two is one", () => {
    expect(longHolds([gain([3, 1]), gain([3, 2])], 1, 20)).toEqual([{ start: 0, end: 3, state: 1 }]);
    expect(longHolds([gain()], 1, 20)).toEqual([]);
  });
});
