import { describe, expect, test } from "@jest/globals";
import { geodesicDistances, stepsOf } from "./geodesic-distance";
import type { LabCells } from "./lab-cells";

/** Cells of shades, a digit each, in tens of lightness. */
function shades(...rows: string[]): LabCells {
  const lightness = Float32Array.from(rows.join(""), (digit) => 10 * Number(digit));
  const none = new Float32Array(lightness.length);
  return { width: rows[0]!.length, height: rows.length, lightness, a: none, b: none };
}

function distancesOf(cells: LabCells, free: number): number[][] {
  const distances = [...geodesicDistances(cells, stepsOf(cells), free)];
  return Array.from({ length: cells.height }, (_, y) => distances.slice(y * cells.width, (y + 1) * cells.width));
}

describe("the distance from the border", () => {
  test("is the change on the easiest way, also where that is not the straight one", () => {
    // The middle is reached through the gap on the right, around the wall.
    const cells = shades("11111", "17771", "17311", "17771", "11111");
    expect(distancesOf(cells, 0)).toEqual([
      [0, 0, 0, 0, 0],
      [0, 60, 60, 60, 0],
      [0, 60, 20, 0, 0],
      [0, 60, 60, 60, 0],
      [0, 0, 0, 0, 0],
    ]);
  });

  test("is the sum of what is more than a free step on each step of the way", () => {
    const cells = shades("1111111", "1111111", "1124211", "1111111", "1111111");
    expect(distancesOf(cells, 0)[2]).toEqual([0, 0, 10, 30, 10, 0, 0]);
    expect(distancesOf(cells, 10)[2]).toEqual([0, 0, 0, 10, 0, 0, 0]);
    expect(distancesOf(cells, 30)[2]).toEqual([0, 0, 0, 0, 0, 0, 0]);
  });

  test("begins at the foot only as far as another side has what is there", () => {
    const cells = shades("11111", "11111", "11911", "11911", "11911");
    expect(distancesOf(cells, 5)).toEqual([
      [0, 0, 0, 0, 0],
      [0, 0, 0, 0, 0],
      [0, 0, 65, 0, 0],
      [0, 0, 65, 0, 0],
      [0, 0, 65, 0, 0],
    ]);
  });
});
