import { expect, test } from "@jest/globals";
import { resizeBox, shiftBox } from "./resize-box";

const PICTURE = { width: 1920, height: 1080 };
const BOX = { x: 100, y: 200, width: 300, height: 400 };

test("sides that are taken hold of move, the others stay", () => {
  const resized = (x: -1 | 0 | 1, y: -1 | 0 | 1, by = { x: 20, y: -30 }) => resizeBox(BOX, { x, y }, by, PICTURE, 8);
  expect(resized(1, 1)).toEqual({ x: 100, y: 200, width: 320, height: 370 });
  expect(resized(-1, -1)).toEqual({ x: 120, y: 170, width: 280, height: 430 });
  expect(resized(0, 1)).toEqual({ x: 100, y: 200, width: 300, height: 370 });
});

test("a box stays in the picture, and does not turn inside out", () => {
  const far = { x: 9000, y: 9000 };
  expect(resizeBox(BOX, { x: 1, y: 1 }, far, PICTURE, 8)).toEqual({ x: 100, y: 200, width: 1820, height: 880 });
  expect(resizeBox(BOX, { x: -1, y: -1 }, far, PICTURE, 8)).toEqual({ x: 392, y: 592, width: 8, height: 8 });
  expect(shiftBox(BOX, far, PICTURE)).toEqual({ ...BOX, x: 1620, y: 680 });
  expect(shiftBox(BOX, { x: -9000, y: 5 }, PICTURE)).toEqual({ ...BOX, x: 0, y: 205 });
});
