import { expect, test } from "@jest/globals";
import { connectedCells } from "./connected-cells";

const GRID = [
  "##....#.", //
  "..#....#",
  "........",
  "#....##.",
];
const size = { width: 8, height: 4 };
const belongs = (cell: number) => GRID.join("")[cell] === "#";

test("cells hang together over edges and corners", () => {
  const { cells, box } = connectedCells(size, 0, belongs);
  expect(cells.sort((a, b) => a - b)).toEqual([0, 1, 10]);
  expect(box).toEqual({ x: 0, y: 0, width: 3, height: 2 });
});

test("a row's end and the next row's beginning do not", () => {
  expect(connectedCells(size, 15, belongs).cells.sort((a, b) => a - b)).toEqual([6, 15]);
});

test("with a longer reach, over gaps", () => {
  const { cells, box } = connectedCells(size, 0, belongs, 2);
  expect(cells).toHaveLength(4);
  expect(box).toEqual({ x: 0, y: 0, width: 3, height: 4 });
});
