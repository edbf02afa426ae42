import { expect, test } from "@jest/globals";
import type { FrameRange, Rate } from "../time/rate";
import { describeLacking, lackingFlags } from "./lacking-pictures";

const RATE = { num: 30, den: 1 };
const NOTHING = { held: 0, longHolds: [], undecoded: [], cutOff: 0 };

test("frames that repeat the one before are told with where that lasts longest", () => {
  const longHolds = [
    { start: 30, end: 45 },
    { start: 90, end: 153 },
  ];
  expect(describeLacking({ ...NOTHING, held: 90, longHolds }, 300, RATE)).toEqual([
    "90 of 300 frames repeat the previous one; the longest lasts 2.1 s, at 00:00:03:00",
  ]);
  expect(describeLacking({ ...NOTHING, held: 12 }, 300, RATE)).toEqual(["12 of 300 frames repeat the previous one"]);
});

test("a frame or two at the end are nothing to speak of", () => {
  expect(describeLacking(NOTHING, 300, RATE)).toEqual([]);
  expect(describeLacking({ ...NOTHING, held: 2 }, 300, RATE)).toEqual([]);
});

test("what is cut off and what cannot be decoded is told in figures", () => {
  const undecoded = [
    { start: 40, end: 42 },
    { start: 90, end: 91 },
  ];
  expect(describeLacking({ ...NOTHING, undecoded, cutOff: 450 }, 300, RATE)).toEqual([
    "The file is cut off: its last 450 frames (15.0 s) are missing",
    "3 of 300 frames cannot be decoded, the first at 00:00:01:10",
  ]);
  expect(lackingFlags({ longHolds: [], undecoded }, { start: 41, end: 200 }, RATE)).toMatchObject([
    { range: { start: 41, end: 42 }, text: "1 frame cannot be decoded; the previous frame is repeated" },
    { kind: "undecoded-picture", frame: 90 },
  ]);
  // What is hardly apart is one place to look at.
  const near = [...undecoded, { start: 100, end: 104 }];
  expect(lackingFlags({ longHolds: [], undecoded: near }, { start: 41, end: 200 }, RATE)).toMatchObject([
    { frame: 41 },
    { range: { start: 90, end: 104 }, text: "5 frames cannot be decoded; the previous frame is repeated" },
  ]);
});

test("a shot tells of the pictures that stand for long in it, as far as they do", () => {
  const holds = [
    { start: 90, end: 153 },
    { start: 200, end: 220 },
  ];
  const looksAt = (shot: FrameRange, rate: Rate) => lackingFlags({ longHolds: holds, undecoded: [] }, shot, rate);
  expect(looksAt({ start: 0, end: 120 }, RATE)).toMatchObject([
    {
      kind: "repeated-picture",
      range: { start: 90, end: 120 },
      text: "Frozen for 1.0 s: the film has no frames here",
    },
  ]);
  expect(looksAt({ start: 120, end: 300 }, RATE).map(({ frame }) => frame)).toEqual([120, 200]);
  expect(looksAt({ start: 153, end: 200 }, RATE)).toEqual([]);
});
