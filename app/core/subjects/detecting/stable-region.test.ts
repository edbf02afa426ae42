import { describe, expect, test } from "@jest/globals";
import { stableRegions } from "./stable-region";

const grid = { width: 30, height: 12 };
const ALL = grid.width * grid.height;

/** A map with values in places of it: a value, its first and last column, and its first and last row. */
function regionsOf(places: [value: number, left: number, right: number, top: number, bottom: number][], most = ALL) {
  const map = new Float64Array(ALL);
  for (const [value, left, right, top, bottom] of places)
    for (let y = top; y <= bottom; y++) map.fill(value, y * grid.width + left, y * grid.width + right + 1);
  const belongsAt = (level: number) => Uint8Array.from(map, (value) => (value > level ? 1 : 0));
  return stableRegions(belongsAt, 0.6, grid, most).map(({ cells, reach }) => ({ cells: cells.length, reach }));
}

describe("stable regions", () => {
  test("what is clearest about a thing grows to all of it", () => {
    const lamp = [1, 8, 9, 4, 5] as const;
    const rest = [0.55, 5, 14, 3, 8] as const;
    expect(regionsOf([[...rest], [...lamp]])).toEqual([{ cells: 60, reach: { x: 5, y: 3, width: 10, height: 6 } }]);
  });

  test("a thing that has its outline already stays as it is where more hangs together with it lower down", () => {
    const thing = [1, 5, 10, 3, 8] as const;
    const ground = [0.2, 0, 29, 9, 11] as const;
    expect(regionsOf([[...ground], [...thing]])).toEqual([{ cells: 36, reach: { x: 0, y: 3, width: 30, height: 9 } }]);
  });

  test("none grows to more than is said", () => {
    const lamp = [1, 8, 9, 4, 5] as const;
    const field = [0.5, 0, 29, 0, 11] as const;
    expect(regionsOf([[...field], [...lamp]], ALL / 2)[0]).toMatchObject({ cells: 4 });
  });

  test("two that grow into one are one", () => {
    const lamps = [
      [1, 6, 7, 4, 5],
      [1, 12, 13, 4, 5],
    ] as const;
    const rest = [0.5, 4, 15, 3, 8] as const;
    expect(
      regionsOf([[...rest], ...lamps.map((lamp) => [...lamp] as [number, number, number, number, number])]),
    ).toEqual([{ cells: 72, reach: { x: 4, y: 3, width: 12, height: 6 } }]);
  });
});
