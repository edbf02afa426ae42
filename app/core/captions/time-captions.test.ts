import { describe, expect, test } from "@jest/globals";
import type { FrameRange } from "../time/rate";
import { USUAL_CAPTIONS } from "./caption-settings";
import { syllablesIn, syllablesOf } from "./syllables";
import { timeCaptions } from "./time-captions";

const RATE = { num: 25, den: 1 };
const FILM = { start: 0, end: 2500 };
const range = (start: number, end: number): FrameRange => ({ start, end });
const said = (...texts: string[]) => texts.map((text) => ({ text, speaker: null }));
const time = (texts: string[], segments: FrameRange[], turns: number[] = []) =>
  timeCaptions(said(...texts), { segments, turns }, FILM, RATE, USUAL_CAPTIONS.rules);
const starts = (timed: { start: number }[]) => timed.map(({ start }) => start);

test("syllables are groups of vowels, without a silent e", () => {
  expect(["goat", "bridge", "remember", "table", "Ferrow", "the"].map(syllablesIn)).toEqual([1, 1, 3, 2, 2, 1]);
  expect(syllablesIn("1984")).toBe(6);
  expect(syllablesOf("the goat, the bridge")).toBe(4.5);
});

describe("captions along the voice", () => {
  test("begin with their speech segment where each has one", () => {
    const segments = [range(50, 100), range(130, 160), range(200, 300)];
    const timed = time(
      ["We walked to the water.", "It was cold.", "Nobody had thought of bringing a coat or a lamp."],
      segments,
    );
    expect(starts(timed)).toEqual([50, 130, 200]);
    expect(timed.every(({ start, end }) => end > start)).toBe(true);
  });

  test("share a segment by their syllables, and one goes on over a short pause", () => {
    const timed = time(["One and two and three and four.", "Five and six and seven and eight."], [range(100, 200)]);
    expect(timed[0]).toMatchObject({ start: 100 });
    expect(timed[1]!.start).toBeGreaterThan(135);
    expect(timed[1]!.start).toBeLessThan(165);
    const over = time(
      ["We went up, all of us together, to the hill.", "Then home."],
      [range(100, 160), range(164, 220), range(300, 320)],
    );
    expect(starts(over)).toEqual([100, 300]);
  });

  test("leave out speech that nobody has written down", () => {
    const segments = [range(0, 40), range(300, 360), range(420, 480)];
    expect(starts(time(["The wind had turned by noon.", "And so we left the harbour."], segments))).toEqual([300, 420]);
  });

  test("end with a change of speaker in one breath", () => {
    const timed = time(["Where have you been all day?", "At the harbour, as you know."], [range(100, 200)], [140]);
    expect(starts(timed)).toEqual([100, 140]);
  });

  test("stay long enough to be read, but not into the next one, and not long after their speech", () => {
    const [first, second] = time(["Unbelievable occurrences!", "Yes."], [range(100, 125), range(150, 156)]);
    expect(first!.end).toBeGreaterThan(125);
    expect(first!.end).toBeLessThanOrEqual(125 + 15);
    expect(second!.end).toBeGreaterThanOrEqual(156);
    const [early] = time(["Unbelievable occurrences!", "Yes."], [range(100, 125), range(129, 135)]);
    expect(early!.end).toBeLessThanOrEqual(129);
  });

  test("follow each other evenly where there is no speech, and never begin at one frame", () => {
    const timed = timeCaptions(
      said("a", "b", "c", "d"),
      { segments: [], turns: [] },
      range(0, 100),
      RATE,
      USUAL_CAPTIONS.rules,
    );
    expect(starts(timed)).toEqual([0, 25, 50, 75]);
    const crowded = time(["a", "b", "c", "d", "e", "f", "g", "h", "i", "j"], [range(10, 14)]);
    expect(new Set(starts(crowded)).size).toBe(10);
  });
});
