import { describe, expect, test } from "@jest/globals";
import { smoothNoise } from "../../../../tests/support/smooth-noise";
import { type Box, boxIou, wholeOf } from "../../geometry/box";
import type { FrameDetections } from "../detecting/detection";
import { RectangleFinder } from "./rectangles";
import { LINE_PICTURES } from "./straight-lines";
import { tileTracks } from "./tile-tracks";

const SIZE = { width: 192, height: 108 };

/** Light that changes over an endless ground, in blotches of a few pixels. */
const blotches = (x: number, y: number, of: number) => 40 + 180 * smoothNoise(x / 22, y / 22, of);

/** A picture made of pieces of grounds, the later ones over the earlier, each moved on from picture to picture. */
function pictureOf(pieces: readonly Box[], time: number, speed: number) {
  const samples = new Uint8Array(SIZE.width * SIZE.height).fill(20);
  pieces.forEach((piece, of) => {
    for (let y = piece.y; y < piece.y + piece.height; y++)
      for (let x = piece.x; x < piece.x + piece.width; x++)
        samples[y * SIZE.width + x] = blotches(x + (of + 1) * speed * time, y + speed * time, of);
  });
  return { ...SIZE, samples };
}

/** What is found in the last of some pictures. */
function found(pieces: readonly Box[], speed: number): Box[] {
  const finder = new RectangleFinder(SIZE);
  let last: Box[] | undefined;
  for (let time = 0; time < LINE_PICTURES + 2; time++) last = finder.see(pictureOf(pieces, time, speed)) ?? last;
  return last!;
}

const halves: Box[] = [
  { x: 0, y: 0, width: 96, height: 108 },
  { x: 96, y: 0, width: 96, height: 108 },
];
const quarters: Box[] = [8, 100].flatMap((x) => [6, 56].map((y) => ({ x, y, width: 84, height: 46 })));
const inset = { x: 90, y: 36, width: 90, height: 64 };

const isIn = (boxes: readonly Box[], wanted: Box) => boxes.some((box) => boxIou(box, wanted) > 0.95);

describe("rectangles", () => {
  test.each([0, 7])("are found where two pictures meet, standing or moving (%i)", (speed) => {
    const boxes = found(halves, speed);
    expect(boxes).toHaveLength(2);
    for (const half of halves) expect(isIn(boxes, half)).toBe(true);
  });

  test("are the finest division, with what is between them left out", () => {
    const boxes = found(quarters, 7);
    expect(boxes).toHaveLength(4);
    for (const quarter of quarters) expect(isIn(boxes, quarter)).toBe(true);
  });

  test("have a picture in them: colour bars are no tiles", () => {
    const finder = new RectangleFinder(SIZE);
    const card = { ...SIZE, samples: new Uint8Array(SIZE.width * SIZE.height) };
    for (let i = 0; i < card.samples.length; i++)
      card.samples[i] = 40 + 50 * Math.floor((4 * (i % SIZE.width)) / SIZE.width);
    let last: Box[] | undefined;
    for (let time = 0; time < LINE_PICTURES + 2; time++) last = finder.see(card) ?? last;
    expect(last).toEqual([]);
  });

  test.each([
    ["on any level", [18, 60, 64]],
    ["in the middle", [54]],
  ])("are not what lines of a landscape make of a picture that stands: %s", (_, lines) => {
    const rows = [0, ...lines, SIZE.height];
    const bands = rows.slice(1).map((foot, i) => ({ x: 0, y: rows[i]!, width: SIZE.width, height: foot - rows[i]! }));
    expect(found(bands, 0)).toEqual([]);
  });

  test("are found over a picture that moves, and nowhere in one alone", () => {
    expect(isIn(found([wholeOf(SIZE), inset], 17), inset)).toBe(true);
    expect(found([wholeOf(SIZE)], 7)).toEqual([]);
    expect(found([wholeOf(SIZE)], 0)).toEqual([]);
  });
});

describe("tracks of tiles", () => {
  const shot = { start: 100, end: 160 };
  const looks = (rectangles: Box[], cameraMoved = false): FrameDetections[] =>
    Array.from({ length: 12 }, (_, i) => ({
      frame: 100 + 5 * i,
      looked: [],
      step: 1,
      detections: [],
      cameraMoved,
      ...(i % 2 ? { rectangles } : {}),
    }));

  test("stay through the shot, a pixel within their seams, in the order in which they are read", () => {
    const tracks = tileTracks(looks([halves[1]!, halves[0]!]), shot, SIZE);
    expect(tracks.map(({ kind, start, boxes }) => [kind, start, boxes.length])).toEqual([
      ["tile", 100, 60],
      ["tile", 100, 60],
    ]);
    expect(tracks.map(({ boxes }) => boxes[9])).toEqual([
      { x: 1, y: 1, width: 94, height: 106 },
      { x: 97, y: 1, width: 94, height: 106 },
    ]);
  });

  test("are of insets only where the camera moves behind them: a window in a wall stays as well", () => {
    expect(tileTracks(looks([inset], true), shot, SIZE).map(({ kind }) => kind)).toEqual(["inset"]);
    expect(tileTracks(looks([inset]), shot, SIZE)).toEqual([]);
  });

  test("need more than a glimpse, and more than one tile", () => {
    const glimpse = looks([]).map((seen, i) => (i === 5 ? { ...seen, rectangles: halves } : seen));
    expect(tileTracks(glimpse, shot, SIZE)).toEqual([]);
    expect(tileTracks(looks([halves[0]!]), shot, SIZE)).toEqual([]);
  });
});
