import { expect, test } from "@jest/globals";
import { barsLines } from "./bars-line";
import { parseActive } from "./options";

test("A picture area is four whole numbers, or the whole picture", () => {
  expect(parseActive("0,140,1920,800")).toEqual({ x: 0, y: 140, width: 1920, height: 800 });
  expect(parseActive("whole")).toBeNull();
  for (const wrong of ["", "0,140,1920", "0,140,1920,8", "-2,0,100,100", "0;0;100;100", "0,0,1e3,100"]) {
    expect(() => parseActive(wrong)).toThrow("such as 0,140,1920,800");
  }
});

test("bars are told by how much is left, for as many shots as have them", () => {
  const letterbox = { x: 0, y: 140, width: 1920, height: 800 };
  const picture = { width: 1920, height: 1080 };
  const shots = [letterbox, null, letterbox].map((active) => ({ active }));
  expect(barsLines(shots, picture)).toEqual([
    "Letterbox left out in 2 shots: 1920 × 800 at 0, 140 is left of 1920 × 1080.",
  ]);
  expect(barsLines([{ active: null }], picture)).toEqual([]);
});
