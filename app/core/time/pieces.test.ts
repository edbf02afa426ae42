import { expect, test } from "@jest/globals";
import { pieceAt, pieceCount, pieceFrames, pieceRange } from "./pieces";

const ntsc = { num: 30000, den: 1001 };

test("pieces are about four seconds of whole groups, and cover the film", () => {
  expect(pieceFrames(ntsc)).toBe(120);
  expect(pieceFrames({ num: 25, den: 1 })).toBe(96);
  expect(pieceFrames({ num: 1, den: 1 })).toBe(12);
  const film = { frames: 250, rate: ntsc };
  expect(pieceCount(film)).toBe(3);
  expect([0, 1, 2].map((piece) => pieceRange(piece, film))).toEqual([
    { start: 0, end: 120 },
    { start: 120, end: 240 },
    { start: 240, end: 250 },
  ]);
});

test("a frame is in the piece whose range holds it", () => {
  for (const frame of [0, 119, 120, 239, 240]) {
    const { start, end } = pieceRange(pieceAt(frame, ntsc), { frames: 250, rate: ntsc });
    expect(frame).toBeGreaterThanOrEqual(start);
    expect(frame).toBeLessThan(end);
  }
});
