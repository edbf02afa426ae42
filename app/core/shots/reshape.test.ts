import { describe, expect, test } from "@jest/globals";
import { joinShots, moveCut, recut, shotId, splitShot } from "./reshape";
import { freshShot, type Shot, transitionsOf } from "./shot";
import { hardTransition } from "./transition";

const cut = (frame: number) => hardTransition(frame, "cut");
const film = (): Shot[] => [
  freshShot("a", { start: 0, end: 40 }, null),
  {
    ...freshShot("b", { start: 40, end: 100 }, { frame: 40, kind: "dissolve", range: { start: 34, end: 46 } }),
    name: "Bench",
  },
  { ...freshShot("c", { start: 100, end: 130 }, cut(100)), excluded: true, follow: { kind: "none" } },
];
const spans = (shots: Shot[]) => shots.map(({ id, start, end }) => [id, start, end]);

describe("reshaping", () => {
  test("splitting gives the second part the settings of the whole, but not its name", () => {
    const shots = splitShot(film(), 110, "switch", "d");
    expect(spans(shots)).toEqual([
      ["a", 0, 40],
      ["b", 40, 100],
      ["c", 100, 110],
      ["d", 110, 130],
    ]);
    expect(shots[3]).toMatchObject({
      begins: "switch",
      follow: { kind: "none" },
      excluded: true,
      name: null,
      carry: false,
    });
    expect(() => splitShot(shots, 110, "cut", "e")).toThrow("already begins");
    expect(() => splitShot(shots, 0, "cut", "e")).toThrow("already begins");
  });

  test("splitting within a mixture shortens it", () => {
    expect(splitShot(film(), 43, "cut", "d")[1]!.mixed).toEqual({ start: 34, end: 43 });
  });

  test("joining keeps the first, and refuses shots that lie apart", () => {
    const joined = joinShots(film(), ["c", "b"]);
    expect(spans(joined)).toEqual([
      ["a", 0, 40],
      ["b", 40, 130],
    ]);
    expect(joined[1]).toMatchObject({ name: "Bench", excluded: false, begins: "dissolve" });
    expect(() => joinShots(film(), ["a", "c"])).toThrow("follow one another");
    expect(() => joinShots(film(), ["a"])).toThrow("two shots");
    expect(() => joinShots(film(), ["a", "x"])).toThrow("no longer");
  });

  test("moving a cut moves both shots and the mixture, and leaves each a frame", () => {
    const moved = moveCut(film(), "b", 42);
    expect(spans(moved).slice(0, 2)).toEqual([
      ["a", 0, 42],
      ["b", 42, 100],
    ]);
    expect(moved[1]!.mixed).toEqual({ start: 36, end: 48 });
    expect(() => moveCut(film(), "b", 100)).toThrow("at least one frame");
    expect(() => moveCut(film(), "b", 0)).toThrow("at least one frame");
    expect(() => moveCut(film(), "a", 3)).toThrow("first shot");
  });

  test("cutting anew keeps settings by overlap and switches by place", () => {
    const before = splitShot(film(), 60, "switch", "d");
    const after = recut(before, [cut(20), cut(98)], 130, "film");
    expect(spans(after)).toEqual([
      ["a", 0, 20],
      ["film.20", 20, 60],
      ["d", 60, 98],
      ["c", 98, 130],
    ]);
    expect(after[2]).toMatchObject({ begins: "switch" });
    expect(after[3]).toMatchObject({ excluded: true, follow: { kind: "none" } });
    // Back to what there was: the same spans again.
    const back = recut(after, transitionsOf(film()), 130, "film");
    expect(back.map(({ start }) => start)).toEqual([0, 40, 60, 100]);
  });
});

test("ids are made from the place and never twice", () => {
  expect(shotId("f", 12, new Set(["f.12", "f.12'"]))).toBe("f.12''");
});
