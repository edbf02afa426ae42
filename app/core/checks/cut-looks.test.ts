import { expect, test } from "@jest/globals";
import { cutLooks } from "./cut-looks";

const shot = { start: 100, end: 200, begins: "cut" as const };

test("a cut that is not certain, unless the editor made it a turn", () => {
  expect(cutLooks(shot, 0.53)).toMatchObject([{ kind: "unsure-cut", frame: 100 }]);
  expect(cutLooks({ ...shot, begins: "turn" }, 0.53)).toEqual([]);
  expect(cutLooks(shot, 0.9)).toEqual([]);
  expect(cutLooks(shot, undefined)).toEqual([]);
});

test("a shot of a few frames", () => {
  expect(cutLooks({ ...shot, end: 104 }, 0.9)).toMatchObject([
    { kind: "short-shot", range: { start: 100, end: 104 }, text: "This shot has only 4 frames" },
  ]);
});
