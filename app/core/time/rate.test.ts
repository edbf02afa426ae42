import { expect, test } from "@jest/globals";
import { formatRate, frameToSeconds, inRange, mediaTimeToFrame, parseRate, seekSeconds } from "./rate";

const FILM = { num: 24000, den: 1001 };

test("rates are read as ratios and written as people say them", () => {
  expect(parseRate("30000/1001")).toEqual({ num: 30000, den: 1001 });
  expect(parseRate("25")).toEqual({ num: 25, den: 1 });
  for (const wrong of ["0/0", "fast", "-25", "25/0", ""]) expect(parseRate(wrong)).toBeNull();
  expect([{ num: 30000, den: 1001 }, { num: 25, den: 1 }, FILM].map(formatRate)).toEqual(["29.97", "25", "23.976"]);
});

test("a frame is found again from the time that a player shows for it, after hours", () => {
  for (const frame of [0, 1, 1000, 172_800]) {
    expect(mediaTimeToFrame(frameToSeconds(frame, FILM), FILM)).toBe(frame);
    expect(Math.floor((seekSeconds(frame, FILM) * FILM.num) / FILM.den)).toBe(frame);
  }
});

test("ranges are half-open", () => {
  expect([9, 10, 19, 20].map((frame) => inRange(frame, { start: 10, end: 20 }))).toEqual([false, true, true, false]);
});
