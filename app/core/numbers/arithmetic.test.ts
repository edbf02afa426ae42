import { expect, test } from "@jest/globals";
import { valueOf } from "./arithmetic";

test.each([
  ["540", 540],
  [" 1920/2 ", 960],
  ["540 + 20*2 - 5", 575],
  ["+20", 120],
  ["-20", 80],
  ["*1.5", 150],
  ["/4", 25],
  ["+10*3", 130],
  ["0,5", 0.5],
  [".5", 0.5],
])("%s, where 100 is, comes to %d", (text, value) => {
  expect(valueOf(text, 100, false)).toBeCloseTo(value);
});

test("where it may be negative, a number with a minus is itself", () => {
  expect(valueOf("-20", 100, true)).toBe(-20);
  expect(valueOf("-20+5", 100, true)).toBe(-15);
});

test.each(["", "abc", "1+", "++2", "1 2", "1/0", "1;2", "(1)"])("%j is no sum", (text) => {
  expect(valueOf(text, 100, false)).toBeNull();
});
