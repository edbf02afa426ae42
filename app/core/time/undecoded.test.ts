import { expect, test } from "@jest/globals";
import { Undecoded } from "./undecoded";

const grid = { rate: { num: 25, den: 1 }, frames: 20, origin: 0.5 };
const at = (frame: number) => grid.origin + frame / 25;

test("pictures that are in the file and were not decoded, as ranges", () => {
  // Frames 6 and 7 have no picture of their own.
  const inFile = Array.from({ length: 20 }, (_, i) => i).filter((frame) => frame !== 6 && frame !== 7);
  const undecoded = new Undecoded(Float64Array.from(inFile, at), grid);
  for (const frame of inFile.filter((frame) => ![4, 5, 8, 12].includes(frame))) undecoded.decoded(at(frame) + 0.001);
  expect(undecoded.within({ start: 0, end: 20 })).toEqual([
    { start: 4, end: 9 },
    { start: 12, end: 13 },
  ]);
  expect(undecoded.within({ start: 5, end: 8 })).toEqual([{ start: 5, end: 6 }]);
});

test("times outside of the film do not count", () => {
  const undecoded = new Undecoded(Float64Array.of(-3, at(0), at(30)), grid);
  undecoded.decoded(at(0));
  expect(undecoded.within({ start: 0, end: 20 })).toEqual([]);
});
