import { describe, expect, test } from "@jest/globals";
import { seeded } from "../../../demo/film/random";
import { LUMA_GRID } from "./frame-features";
import { matchShots, settleMatches } from "./match-shots";
import { PictureStrip } from "./picture-strip";

/** A frame of a made-up scene: a texture of its own, in which a patch moves. */
function picture(scene: number, time: number): Uint8Array {
  const random = seeded(7919 * (scene + 3));
  for (let i = 0; i < 20; i++) random();
  const blocks = Float32Array.from({ length: 8 * 6 }, () => 30 + 190 * random());
  const texture = Float32Array.from({ length: LUMA_GRID.columns * LUMA_GRID.rows }, (_, i) => {
    const [x, y] = [i % LUMA_GRID.columns, Math.floor(i / LUMA_GRID.columns)];
    return blocks[Math.floor(y / 6) * 8 + Math.floor(x / 8)]! + 20 * random();
  });
  const x0 = 4 + time * 0.25;
  return Uint8Array.from(texture, (value, i) => {
    const [x, y] = [i % LUMA_GRID.columns, Math.floor(i / LUMA_GRID.columns)];
    return x >= x0 && x < x0 + 12 && y >= 8 && y < 26 ? 235 : value;
  });
}

type Cut = [scene: number, from: number, to: number];
const BLACK = -1;

/** A film of pieces of scenes, each told by where in the scene it begins and ends. */
function film(cuts: readonly Cut[], grade: (value: number, i: number) => number = (value) => value): PictureStrip {
  const strip = new PictureStrip();
  for (const [scene, from, to] of cuts) {
    for (let time = from; time < to; time++) {
      const luma = scene === BLACK ? new Uint8Array(LUMA_GRID.columns * LUMA_GRID.rows).fill(16) : picture(scene, time);
      strip.add({ luma: luma.map((value, i) => grade(value, i)) });
    }
  }
  return strip;
}

/** The shots of such a film. */
function shotsOf(cuts: readonly Cut[]) {
  let start = 0;
  return cuts.map(([scene, from, to], i) => {
    const shot = { id: `${i}:${scene}`, start, end: start + to - from };
    start = shot.end;
    return shot;
  });
}

const OLD: Cut[] = [
  [1, 0, 60],
  [2, 0, 80],
  [1, 100, 150],
  [3, 0, 50],
  [4, 0, 60],
];
const match = (after: readonly Cut[], grade?: (value: number, i: number) => number) =>
  [...matchShots(shotsOf(OLD), film(OLD), film(after, grade), 1)].map(({ range }) => range && [range.start, range.end]);

describe("shots are found again in a new export", () => {
  const SAME = [
    [0, 60],
    [60, 140],
    [140, 190],
    [190, 240],
    [240, 300],
  ];

  test("where nothing has moved, also when it was graded anew and encoded", () => {
    expect(match(OLD)).toEqual(SAME);
    const random = seeded(9);
    expect(match(OLD, (value) => Math.min(255, 0.8 * value + 25 + 8 * (random() - 0.5)))).toEqual(SAME);
  });

  test("where one was put in, one was shortened at its head, and one is gone", () => {
    const after: Cut[] = [
      [BLACK, 0, 12],
      [1, 0, 60],
      [9, 0, 40],
      [2, 15, 80],
      [3, 0, 50],
      [4, 0, 60],
    ];
    expect(match(after)).toEqual([[12, 72], [112, 177], null, [177, 227], [227, 287]]);
  });

  test("where one has moved to another place", () => {
    const after: Cut[] = [[4, 0, 60], ...OLD.slice(0, 4)];
    expect(match(after)).toEqual([
      [60, 120],
      [120, 200],
      [200, 250],
      [250, 300],
      [0, 60],
    ]);
  });

  test("at another frame rate", () => {
    const twice = new PictureStrip();
    for (const [scene, from, to] of OLD) {
      for (let i = 0; i < 2 * (to - from); i++) twice.add({ luma: picture(scene, from + i / 2) });
    }
    const [first, second] = matchShots(shotsOf(OLD), film(OLD), twice, 2);
    expect([first!.range, second!.range]).toEqual([
      { start: 0, end: 120 },
      { start: 120, end: 280 },
    ]);
  });

  test("and are not, in another film", () => {
    const matches = [...matchShots(shotsOf(OLD), film(OLD), film([[7, 0, 200]]), 1)];
    expect(matches.map(({ range }) => range)).toEqual([null, null, null, null, null]);
  });
});

test("of shots that are found in one place, the likest has it; what is left at its edges goes to the other", () => {
  const match = (id: string, start: number, end: number, likeness: number) => ({
    id,
    range: { start, end },
    shift: 0,
    likeness,
    share: 1,
  });
  const settled = settleMatches([match("a", 0, 60, 0.86), match("b", 10, 100, 0.99), match("c", 90, 140, 0.97)]);
  expect(settled.map(({ id, range, share }) => [id, range, share])).toEqual([
    ["a", null, 0],
    ["b", { start: 10, end: 100 }, 1],
    ["c", { start: 100, end: 140 }, 0.8],
  ]);
});
