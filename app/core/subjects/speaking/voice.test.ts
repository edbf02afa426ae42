import { expect, test } from "@jest/globals";
import { speechIn, speechSegments, voiced } from "./voice";

const RATE = { num: 25, den: 1 };
/** Probabilities as runs: [frames, probability] after one another. */
const runs = (...parts: [number, number][]) =>
  Uint8Array.from(parts.flatMap(([frames, probability]) => Array<number>(frames).fill(probability)));

test("a frame has the probability of the piece in its middle; beyond the last piece there is none", () => {
  const voice = { secondsPerPiece: 0.08, speech: [10, 200, 30] };
  expect([...speechIn(voice, { start: 0, end: 8 }, RATE)]).toEqual([10, 10, 200, 200, 30, 30, 0, 0]);
  expect([...speechIn(voice, { start: 3, end: 5 }, RATE)]).toEqual([200, 30]);
});

test("speech goes on over a pause that is no longer than allowed, and never begins with one", () => {
  const said = (pause: number) => voiced(runs([5, 0], [3, 128], [pause, 127], [3, 255], [4, 0]), RATE, 0.2);
  expect(said(4).join("")).toBe("0000011111111110000");
  expect(said(5).join("")).toBe("00000111000001110000");
});

test("segments are parted by pauses longer than those between words, and what is too short for a word is none", () => {
  const segments = speechSegments(runs([4, 0], [10, 255], [2, 0], [5, 255], [6, 0], [1, 255], [6, 0], [2, 255]), RATE);
  expect(segments).toEqual([
    { start: 4, end: 21 },
    { start: 34, end: 36 },
  ]);
  expect(speechSegments(runs([20, 0]), RATE)).toEqual([]);
});
