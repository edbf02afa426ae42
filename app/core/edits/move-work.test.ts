import { describe, expect, test } from "@jest/globals";
import { TALL, TWO_SHOTS } from "../../../tests/support/film-state";
import type { Track } from "../subjects/tracking/track";
import type { FilmFacts, FilmState } from "../version/film-state";
import { brokenInvariant } from "./invariants";
import { moveWork } from "./move-work";
import { movedParts, type ShotMatch } from "../shots/match-shots";

const BOX = { x: 100, y: 200, width: 50, height: 60 };
const key = (frame: number) => ({ pane: 0, frame, x: 700, y: 540, height: 1080, easing: null });
const TRACK: Track = {
  id: "face-9",
  kind: "face",
  start: 100,
  confidence: 0.9,
  boxes: Array.from({ length: 200 }, (_, i) => ({ x: 300, y: 300, width: 50 + i, height: 50 + i })),
};

/** Cut at frame 100 of 300; keys, marks, a trim, and a track that is followed. */
const WORKED: FilmState = {
  ...TWO_SHOTS,
  shots: [
    { ...TWO_SHOTS.shots[0]!, name: "Opening", protect: BOX },
    { ...TWO_SHOTS.shots[1]!, follow: { kind: "track", trackId: "face-9" } },
  ],
  versions: [
    {
      ...TALL,
      trim: { in: 20, out: 280, leftOut: [{ start: 90, end: 120 }] },
      shots: new Map([["two", { calm: 80, follow: { kind: "track", trackId: "mark-m" } }]]),
      handKeys: [key(10), key(50), key(150), key(290)],
    },
  ],
  marks: [
    { thing: "m", frame: 40, box: BOX },
    { thing: "m", frame: 200, box: BOX },
  ],
  captions: [
    { id: "c1", start: 30, end: 60, text: "Up", speaker: "Ada" },
    { id: "c2", start: 90, end: 110, text: "over the cut", speaker: null },
    { id: "c3", start: 280, end: 299, text: "gone", speaker: null },
  ],
};
const to = (frames: number, width = 1920, height = 1080): FilmFacts => ({
  ...WORKED.film,
  frames,
  picture: { width, height },
  candidates: [],
  analysed: false,
});
const match = (id: string, start: number, end: number, shift: number) => ({
  id,
  range: { start, end },
  shift,
  likeness: 0.99,
  share: 1,
});
const move = (facts: FilmFacts, matches: readonly ShotMatch[], ratio = 1, state = WORKED) => {
  let n = 0;
  const moved = moveWork(state, facts, movedParts(state.shots, matches), ratio, {
    rename: () => null,
    tracksOf: (id) => (id === "two" ? [TRACK] : []),
    newId: () => `new${n++}`,
  });
  expect(brokenInvariant(moved, facts.frames)).toBeNull();
  return moved;
};
const frames = (state: FilmState) => state.versions[0]!.handKeys.map(({ frame }) => frame);

describe("work is moved to a new export", () => {
  test("to where its frames are: something was put in, and the second shot is shorter at its end", () => {
    // Twenty frames in front of each shot; the second ends at old frame 250.
    const moved = move(to(320), [match("one", 20, 120, 20), match("two", 140, 290, 40)]);
    expect(moved.shots.map(({ id, start, end, name }) => [id, start, end, name])).toEqual([
      ["film.0", 0, 20, null],
      ["one", 20, 120, "Opening"],
      ["film.120", 120, 140, null],
      ["two", 140, 290, null],
      ["film.290", 290, 320, null],
    ]);
    expect(frames(moved)).toEqual([30, 70, 190]);
    expect(moved.versions[0]!.trim).toEqual({
      in: 40,
      out: null,
      leftOut: [
        { start: 110, end: 120 },
        { start: 140, end: 160 },
      ],
    });
    expect(moved.versions[0]!.shots.get("two")).toEqual({ calm: 80, follow: { kind: "track", trackId: "mark-m" } });
    expect(moved.captions.map(({ id, start, end }) => [id, start, end])).toEqual([
      ["c1", 50, 80],
      ["c2", 110, 120],
    ]);
    // The face that was followed is marked where it is largest of what is left.
    expect(moved.shots[3]!.follow).toEqual({ kind: "track", trackId: "mark-new0" });
    expect(moved.marks).toEqual([
      { thing: "m", frame: 60, box: BOX },
      { thing: "m", frame: 240, box: BOX },
      { thing: "new0", frame: 289, box: { x: 300, y: 300, width: 199, height: 199 } },
    ]);
  });

  test("switches go to where their frames are, with what is followed at them", () => {
    const switches = [
      { frame: 100, trackIds: ["face-9"] },
      { frame: 150, trackIds: ["mark-m", "face-9"] },
      { frame: 270, trackIds: ["face-9"] },
    ];
    const [first, second] = WORKED.shots;
    const state = { ...WORKED, shots: [first!, { ...second!, follow: { kind: "switches" as const, switches } }] };
    const moved = move(to(320), [match("one", 20, 120, 20), match("two", 140, 290, 40)], 1, state);
    expect(moved.shots[3]!.follow).toEqual({
      kind: "switches",
      switches: [
        { frame: 140, trackIds: ["mark-new0"] },
        { frame: 190, trackIds: ["mark-m", "mark-new0"] },
      ],
    });
  });

  test("when a shot is gone, with all that was set in it", () => {
    const moved = move(to(200), [
      { id: "one", range: null, shift: 0, likeness: 0.2, share: 0 },
      match("two", 0, 200, -100),
    ]);
    expect(moved.shots.map(({ id, begins }) => [id, begins])).toEqual([["two", "cut"]]);
    expect([frames(moved), moved.versions[0]!.trim.in]).toEqual([[50, 190], null]);
    expect(moved.marks.map(({ frame }) => frame)).toEqual([100, 199]);
  });

  test("at twice the size and twice the rate", () => {
    const moved = move(to(600, 3840, 2160), [match("one", 0, 200, 0), match("two", 200, 600, 0)], 2);
    expect(moved.versions[0]!.handKeys[0]).toMatchObject({ frame: 20, x: 1400, y: 1080, height: 2160 });
    expect(moved.shots[0]!.protect).toEqual({ x: 200, y: 400, width: 100, height: 120 });
  });

  test("when two shots are found in one place, the first has it", () => {
    const moved = move(to(100), [match("one", 0, 100, 0), match("two", 0, 100, -100)]);
    expect(moved.shots.map(({ id }) => id)).toEqual(["one"]);
    expect(moved.versions[0]!.shots.size).toBe(0);
  });
});
