import { expect, test } from "@jest/globals";
import { commonEdges, edgesAround, plainBeyond, plainEdges, reachesBeyond, sameEdges } from "./plain-edges";

const SIZE = { width: 64, height: 36 };

function frame(inside: (x: number, y: number) => boolean): Uint8Array {
  return Uint8Array.from({ length: SIZE.width * SIZE.height }, (_, i) =>
    inside(i % SIZE.width, Math.floor(i / SIZE.width)) ? 60 + ((i * 37) % 120) : 16,
  );
}

test("a frame is plain as far as its bars, and no farther than half of it", () => {
  expect(
    plainEdges(
      frame((_, y) => y >= 5 && y < 30),
      SIZE,
    ),
  ).toEqual({ left: 0, top: 5, right: 0, bottom: 6 });
  expect(
    plainEdges(
      frame((x) => x >= 9 && x < 55),
      SIZE,
    ),
  ).toEqual({ left: 9, top: 0, right: 9, bottom: 0 });
  expect(plainEdges(new Uint8Array(SIZE.width * SIZE.height), SIZE)).toEqual({
    left: 28,
    top: 16,
    right: 28,
    bottom: 16,
  });
});

test("of several frames nearly all count", () => {
  const edges = (top: number) => ({ left: 0, top, right: 0, bottom: top });
  expect(commonEdges([5, 5, 5, 9, 16].map(edges))).toEqual(edges(5));
  expect(commonEdges([0, ...Array.from({ length: 11 }, () => 5)].map(edges))).toEqual(edges(5));
});

test("a shot goes with bars, shows more than they leave, or is plain beyond them", () => {
  const picture = { width: 640, height: 360 };
  const bars = edgesAround({ x: 0, y: 50, width: 640, height: 250 }, picture, 10);
  expect(bars).toEqual({ left: 0, top: 5, right: 0, bottom: 6 });
  const shot = (left: number, top: number, right: number, bottom: number) => ({ left, top, right, bottom });
  expect([sameEdges(shot(0, 4, 1, 6), bars), sameEdges(shot(3, 5, 3, 6), bars)]).toEqual([true, false]);
  expect([reachesBeyond(shot(0, 0, 0, 6), bars), reachesBeyond(shot(0, 9, 0, 9), bars)]).toEqual([true, false]);
  expect([plainBeyond(shot(9, 5, 9, 6), bars), plainBeyond(shot(9, 5, 0, 6), bars)]).toEqual([true, false]);
});
