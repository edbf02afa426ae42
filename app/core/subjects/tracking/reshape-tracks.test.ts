import { expect, test } from "@jest/globals";
import { reshapeTracks } from "./reshape-tracks";
import type { Track } from "./track";

const box = (x: number) => ({ x, y: 100, width: 50, height: 50 });
const track = (id: string, start: number, xs: (number | null)[], more: Partial<Track> = {}): Track => ({
  id,
  kind: "face",
  start,
  boxes: xs.map((x) => (x === null ? null : box(x))),
  confidence: 0.8,
  ...more,
});

test("a part of a shot shows the parts of its tracks, under their own names", () => {
  const whole = [track("a", 10, [1, 2, 3, 4, 5, 6]), track("b", 10, [9, 9, null, null, null, null])];
  const parts = reshapeTracks({ start: 12, end: 14 }, [whole]);
  expect(parts).toEqual([track("a", 12, [3, 4])]);
  expect(whole[0]!.boxes).toHaveLength(6);
});

test("over a boundary a track goes on where one ends and another begins at the same place", () => {
  const pool = [
    [track("a", 0, [10, 11, 12]), track("p", 0, [10, 11, 12], { kind: "person" })],
    [
      track("b", 3, [13, 14], { personId: "q" }),
      track("q", 3, [13, 14], { kind: "person" }),
      track("c", 3, [300, 300]),
      track("d", 4, [12]),
    ],
  ];
  const joined = reshapeTracks({ start: 0, end: 5 }, pool);
  expect(joined.map(({ id, start, boxes }) => [id, start, boxes.length])).toEqual([
    ["a", 0, 5],
    ["p", 0, 5],
    ["c", 3, 2],
    ["d", 4, 1],
  ]);
});

test("a face that belongs to a person that was joined belongs to the one that is left", () => {
  const pool = [
    [track("p", 0, [10, 11], { kind: "person" })],
    [track("q", 2, [12, 13], { kind: "person" }), track("f", 2, [200, 200], { personId: "q" })],
  ];
  expect(reshapeTracks({ start: 0, end: 4 }, pool).find(({ id }) => id === "f")!.personId).toBe("p");
});
