import { expect, test } from "@jest/globals";
import { describeRepeated, repeatedLooks } from "./repeated-pictures";

const RATE = { num: 30, den: 1 };

test("frames that repeat the one before are told with where that lasts longest", () => {
  const longHolds = [
    { start: 30, end: 45 },
    { start: 90, end: 153 },
  ];
  expect(describeRepeated({ held: 90, longHolds }, 300, RATE)).toBe(
    "90 of 300 frames repeat the previous one; the longest freeze lasts 2.1 s, at 00:00:03:00",
  );
  expect(describeRepeated({ held: 12, longHolds: [] }, 300, RATE)).toBe("12 of 300 frames repeat the previous one");
});

test("a frame or two at the end are nothing to speak of", () => {
  expect(describeRepeated({ held: 0, longHolds: [] }, 300, RATE)).toBeNull();
  expect(describeRepeated({ held: 2, longHolds: [] }, 300, RATE)).toBeNull();
});

test("a shot tells of the pictures that stand for long in it, as far as they do", () => {
  const holds = [
    { start: 90, end: 153 },
    { start: 200, end: 220 },
  ];
  expect(repeatedLooks(holds, { start: 0, end: 120 }, RATE)).toEqual([
    { kind: "repeated-picture", frame: 90, text: "The picture freezes for 1.0 s: the file has no frames here" },
  ]);
  expect(repeatedLooks(holds, { start: 120, end: 300 }, RATE).map(({ frame }) => frame)).toEqual([120, 200]);
  expect(repeatedLooks(holds, { start: 153, end: 200 }, RATE)).toEqual([]);
});
