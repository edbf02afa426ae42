import { expect, test } from "@jest/globals";
import { cutFlags } from "./cut-flags";

const shot = { start: 100, end: 200, begins: "cut" as const };

test("a cut that is not certain, unless the editor made it a switch", () => {
  expect(cutFlags(shot, 0.53)).toMatchObject([{ kind: "unsure-cut", frame: 100 }]);
  expect(cutFlags({ ...shot, begins: "switch" }, 0.53)).toEqual([]);
  expect(cutFlags(shot, 0.9)).toEqual([]);
  expect(cutFlags(shot, undefined)).toEqual([]);
});

test("a shot of a few frames", () => {
  expect(cutFlags({ ...shot, end: 104 }, 0.9)).toMatchObject([
    { kind: "short-shot", range: { start: 100, end: 104 }, text: "This shot has only 4 frames" },
  ]);
});
