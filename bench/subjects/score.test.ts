import { describe, expect, test } from "@jest/globals";
import type { Track } from "~/core/subjects/tracking/track";
import type { Seen } from "./draw-scene";
import { rightSubject, scoreFaces, scoreMark } from "./score";

const FRAMES = 20;
const actor = (id: string, x: number, more: Partial<Seen> = {}): Seen => ({
  id,
  main: id === "a",
  face: [x, 100, 90, 100],
  body: [x - 60, 80, 210, 500],
  hidden: 0,
  ...more,
});
const truth = (seen: (frame: number) => Seen[]) => Array.from({ length: FRAMES }, (_, frame) => seen(frame));
function track(id: string, x: number, from = 0, to = FRAMES): Track {
  const boxes = Array.from({ length: to - from }, () => ({ x: x + 5, y: 115, width: 80, height: 80 }));
  return { id, kind: "face", start: from, boxes, confidence: 0.9 };
}

describe("faces", () => {
  test("are found, missed and made up, by size", () => {
    const seen = truth(() => [actor("a", 100), actor("b", 600)]);
    const score = scoreFaces([track("t", 100), track("u", 1000)], seen, 0.5, 30);
    expect(score.asked).toEqual([0, 2 * FRAMES]);
    expect(score.found).toEqual([0, FRAMES]);
    expect([score.said, score.right]).toEqual([2 * FRAMES, FRAMES]);
  });

  test("that change their track are switches; those that are hidden are not asked for", () => {
    const seen = truth((frame) => [actor("a", 100, { hidden: frame < 5 ? 0.5 : 0 })]);
    const score = scoreFaces([track("t", 100, 0, 10), track("u", 100, 10)], seen, 0.5, 30);
    expect(score.switches).toBe(1);
    expect(score.asked).toEqual([0, 15]);
  });
});

test("the right subject is followed where its middle is on the main one", () => {
  const seen = truth(() => [actor("a", 100), actor("b", 600)]);
  const followed = seen.map((_, frame) => (frame < 15 ? { x: 110, y: 110, width: 80, height: 80 } : null));
  expect(rightSubject(followed, seen)).toEqual({ right: 15, asked: FRAMES });
});

describe("marks", () => {
  const real = (hidden: (frame: number) => number) =>
    Array.from({ length: FRAMES }, (_, frame) => ({
      box: hidden(frame) > 0.9 ? null : { x: 105, y: 115, width: 80, height: 80 },
      hidden: hidden(frame),
    }));

  test("are held, and how far off they are is in sizes of the thing", () => {
    expect(
      scoreMark(
        track("m", 100),
        real(() => 0),
      ),
    ).toMatchObject({ held: FRAMES, asked: FRAMES, off: 0, hidden: 0 });
    expect(
      scoreMark(
        track("m", 300),
        real(() => 0),
      ).held,
    ).toBe(0);
  });

  test("that were hidden are found again or not", () => {
    const hidden = (frame: number) => (frame >= 4 && frame < 8 ? 1 : 0);
    expect(scoreMark(track("m", 100), real(hidden))).toMatchObject({ asked: 16, hidden: 1, recovered: 1 });
    expect(scoreMark(track("m", 100, 0, 6), real(hidden))).toMatchObject({ hidden: 1, recovered: 0 });
  });
});
