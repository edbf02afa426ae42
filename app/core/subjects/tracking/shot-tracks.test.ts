import { expect, test } from "@jest/globals";
import { rangesOf, tracksInShot } from "./shot-tracks";
import { packTrack, unpackTrack } from "./packed-tracks";
import type { Track } from "./track";

const track = (id: string, start: number, frames: number, x: number): Track => ({
  id,
  kind: "face",
  start,
  boxes: Array.from({ length: frames }, () => ({ x, y: 10, width: 40, height: 40 })),
  confidence: 0.9,
});
const ANALYSED = [
  { start: 0, end: 100, tracks: [track("a", 0, 100, 50)] },
  { start: 0, end: 50, tracks: [track("d", 0, 50, 50)] },
  { start: 100, end: 300, tracks: [track("b", 100, 200, 52), track("c", 150, 20, 400)] },
];
const NOTHING = { marks: [], trackEdits: new Map(), people: [] };
const inShot = (start: number, end: number) =>
  tracksInShot({ start, end }, rangesOf({ start, end }, ANALYSED), () => undefined, NOTHING);

test("reshaped shots show the tracks of the parts they are made of", () => {
  expect(inShot(60, 160).map(({ id, start, boxes }) => [id, start, boxes.length])).toEqual([
    ["a", 60, 100],
    ["c", 150, 10],
  ]);
  expect(inShot(200, 300).map(({ id }) => id)).toEqual(["b"]);
  // An analysis at other cuts has left another range; no frame is counted twice.
  expect(inShot(0, 120).map(({ id }) => id)).toEqual(["a"]);
  expect(inShot(0, 50).map(({ id }) => id)).toEqual(["d"]);
});

test("marked things are among them, once their tracks are there", () => {
  const box = { x: 1, y: 2, width: 30, height: 40 };
  const marks = [{ thing: "m", frame: 20, box }];
  const shot = { start: 0, end: 100 };
  const marked = (found: boolean) =>
    tracksInShot(shot, rangesOf(shot, ANALYSED), () => (found ? track("mark-m", 0, 100, 300) : undefined), {
      ...NOTHING,
      marks,
    }).map(({ id }) => id);
  expect(marked(false)).toEqual(["a"]);
  expect(marked(true)).toEqual(["a", "mark-m"]);
});

test("packed tracks keep their places to a tenth of a pixel", () => {
  const moving: Track = {
    ...track("a", 7, 3, 0),
    boxes: [{ x: 10.04, y: -3.26, width: 40, height: 50.56 }, null, { x: 700.5, y: 2, width: 41.1, height: 49.9 }],
    speaking: [{ start: 7, end: 9 }],
    mouth: [1, null, 2],
  };
  const packed = JSON.parse(JSON.stringify(packTrack(moving))) as ReturnType<typeof packTrack>;
  const rest = { ...moving };
  delete rest.mouth;
  expect(unpackTrack(packed)).toEqual({
    ...rest,
    boxes: [{ x: 10, y: -3.3, width: 40, height: 50.6 }, null, moving.boxes[2]],
  });
});
