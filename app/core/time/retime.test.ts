import { expect, test } from "@jest/globals";
import { retimed } from "./retime";

const R = (num: number, den = 1) => ({ num, den });
const never = () => false;
const RANGES = [{ start: 10, end: 14 }];

test("twice as many frames per second: each is there twice, or one in two is mixed", () => {
  const frames = (mixes: boolean) => retimed(RANGES, R(25), R(50), mixes, never);
  expect(frames(false).map(({ frame }) => frame)).toEqual([10, 10, 11, 11, 12, 12, 13, 13]);
  const mixed = frames(true);
  expect(mixed[1]).toEqual({ frame: 10, mixed: { frame: 11, share: 0.5 } });
  expect(mixed.filter((each) => each.mixed)).toHaveLength(3);
  // After the last there is nothing to mix it with.
  expect(mixed[7]).toEqual({ frame: 13 });
});

test("nothing is mixed across a cut, nor across what is left out", () => {
  const isCut = (frame: number) => frame === 12;
  expect(retimed(RANGES, R(25), R(50), true, isCut)[3]).toEqual({ frame: 11 });
  const leftOut = [
    { start: 0, end: 2 },
    { start: 8, end: 10 },
  ];
  expect(retimed(leftOut, R(25), R(50), true, never)[3]).toEqual({ frame: 1 });
});

test("half as many frames, and rates that are not whole: the length stays", () => {
  expect(retimed(RANGES, R(50), R(25), false, never).map(({ frame }) => frame)).toEqual([10, 12]);
  const minute = [{ start: 0, end: 25 * 60 }];
  const shown = retimed(minute, R(25), R(30_000, 1001), false, never);
  expect(shown).toHaveLength(Math.round((60 * 30_000) / 1001));
  // Every frame is shown, but for what is left of the last one, and none goes back.
  expect(shown.at(-1)!.frame).toBe(25 * 60 - 2);
  expect(new Set(shown.map(({ frame }) => frame)).size).toBe(25 * 60 - 1);
  expect(shown.every(({ frame }, i) => i === 0 || frame >= shown[i - 1]!.frame)).toBe(true);
});
