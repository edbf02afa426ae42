import { expect, test } from "@jest/globals";
import { arrange, fitInto } from "./fit";

const TALL = { width: 1080, height: 1920 };
const WIDE = { width: 1920, height: 1080 };

test("a shape fits into a room by the side that is short of room", () => {
  expect(fitInto(TALL, { width: 300, height: 400 })).toEqual({ width: 225, height: 400 });
  expect(fitInto(TALL, { width: 90, height: 400 })).toEqual({ width: 90, height: 160 });
  expect(fitInto(TALL, { width: 0, height: 0 })).toEqual({ width: 0, height: 0 });
});

test("tall shapes stand beside each other, wide ones above each other, in a room of one shape", () => {
  const room = { width: 400, height: 400 };
  expect(arrange([TALL, TALL], room, 10)).toMatchObject({
    isRow: true,
    sizes: [
      { width: 194, height: 346 },
      { width: 194, height: 346 },
    ],
  });
  expect(arrange([WIDE, WIDE], room, 10).isRow).toBe(false);
});
