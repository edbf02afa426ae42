import { describe, expect, test } from "@jest/globals";
import { speakingTurns } from "./speaking";
import type { Track } from "../tracking/track";
import { speechIn, voiced as voicedFrames } from "./voice";

const RATE = { num: 30, den: 1 };
const SHOT = { start: 100, end: 400 };

/** A face whose mouth moves in some segments of the film. */
function face(id: string, moves: [number, number][], seen: [number, number] = [100, 400]): Track {
  const [start, end] = seen;
  const frames = Array.from({ length: end - start }, (_, i) => start + i);
  return {
    id,
    kind: "face",
    start,
    boxes: frames.map(() => ({ x: 0, y: 0, width: 40, height: 50 })),
    confidence: 0.9,
    mouth: frames.map((frame) => {
      const open = moves.some(([from, to]) => frame >= from && frame < to);
      return open ? 120 + 60 * Math.sin(frame) : 12 + 10 * Math.sin(1.7 * frame);
    }),
  };
}
const voiced = (...spans: [number, number][]) =>
  Uint8Array.from({ length: 300 }, (_, i) => (spans.some(([from, to]) => i + 100 >= from && i + 100 < to) ? 250 : 0));

describe("who speaks", () => {
  test("is whoever's mouth moves while there is a voice", () => {
    const faces = [face("a", [[120, 220]]), face("b", [[240, 380]])];
    const turns = speakingTurns(faces, SHOT, voiced([120, 220], [240, 380]), RATE);
    const near = (found: number, wanted: number) => expect(Math.abs(found - wanted)).toBeLessThan(3);
    const [a, b] = [turns.get("a")!, turns.get("b")!];
    expect([a.length, b.length]).toEqual([1, 1]);
    near(a[0]!.start, 120);
    near(a[0]!.end, 220);
    near(b[0]!.start, 240);
    near(b[0]!.end, 380);
  });

  test("is nobody in the picture when no mouth moves to the voice, or when there is none", () => {
    expect(speakingTurns([face("a", [])], SHOT, voiced([120, 380]), RATE).size).toBe(0);
    expect(speakingTurns([face("a", [[120, 220]])], SHOT, voiced(), RATE).size).toBe(0);
    expect(speakingTurns([], SHOT, voiced([120, 220]), RATE).size).toBe(0);
  });

  test("begins with the word after a pause, where one voice follows another", () => {
    const faces = [face("a", [[110, 212]]), face("b", [[214, 330]])];
    // The pause is short enough to be one within a sentence.
    const turns = speakingTurns(faces, SHOT, voiced([110, 218], [222, 330]), RATE);
    expect(turns.get("b")).toEqual([{ start: 222, end: 330 }]);
  });

  test("does not change for a syllable", () => {
    const faces = [face("a", [[100, 400]]), face("b", [[200, 212]])];
    const turns = speakingTurns(faces, SHOT, voiced([100, 400]), RATE);
    expect(turns.get("a")).toHaveLength(1);
    expect(turns.has("b")).toBe(false);
  });
});

test("the voice is laid on the film's frames, and short pauses are filled", () => {
  const speech = Uint8Array.from({ length: 100 }, (_, piece) => (piece >= 50 && piece !== 60 ? 250 : 3));
  const heard = { speech, secondsPerPiece: 0.032 };
  const frames = voicedFrames(speechIn(heard, { start: 0, end: 96 }, RATE), RATE);
  expect([frames[47], frames[50], frames[58], frames[90]]).toEqual([0, 1, 1, 1]);
  expect(speechIn(heard, { start: 48, end: 51 }, RATE)).toEqual(Uint8Array.of(250, 250, 250));
  // After the end of the sound nobody speaks.
  expect(speechIn(heard, { start: 200, end: 203 }, RATE)).toEqual(new Uint8Array(3));
});
