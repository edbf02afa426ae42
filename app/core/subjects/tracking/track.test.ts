import { describe, expect, test } from "@jest/globals";
import {
  boxAt,
  extentOf,
  isDoubtfulFace,
  joinTracks,
  nearestBox,
  seenTogether,
  type Track,
  visibleFrames,
} from "./track";

const at = (x: number) => ({ x, y: 0, width: 10, height: 10 });
const track = (start: number, boxes: Track["boxes"], more: Partial<Track> = {}): Track => ({
  id: `t${start}`,
  kind: "face",
  start,
  boxes,
  confidence: 0.5,
  ...more,
});
const GAPPED = track(10, [at(0), null, null, at(3), at(4)]);

test("where a track is, is told for frames of the film", () => {
  expect([9, 10, 11, 13, 14, 15].map((frame) => boxAt(GAPPED, frame)?.x ?? null)).toEqual([null, 0, null, 3, 4, null]);
  expect([extentOf(GAPPED), visibleFrames(GAPPED)]).toEqual([{ start: 10, end: 15 }, 3]);
});

test("the nearest place is before or after, the earlier of two that are as near", () => {
  expect([0, 10, 11, 12, 14, 90].map((frame) => nearestBox(GAPPED, frame)?.x)).toEqual([0, 0, 0, 3, 4, 4]);
  expect(nearestBox(track(5, [at(1), null, at(2)]), 6)?.x).toBe(1);
  expect(nearestBox(track(5, [null, null]), 5)).toBeNull();
});

test("two are seen together where both are there in one frame, and not where one is hidden", () => {
  expect(seenTogether(GAPPED, track(13, [at(9)]))).toBe(true);
  expect(seenTogether(GAPPED, track(11, [at(9), at(9)]))).toBe(false);
  expect(seenTogether(GAPPED, track(15, [at(9)]))).toBe(false);
  expect(seenTogether(track(14, [at(9)]), GAPPED)).toBe(true);
});

test("a face without a body is doubtful where it is not clear, the more so where it is small", () => {
  const picture = { width: 1920, height: 1080 };
  const face = (confidence: number, more: Partial<Track> = {}) => track(0, [at(0)], { confidence, ...more });
  expect([face(0.3), face(0.99)].map((one) => isDoubtfulFace(one, picture))).toEqual([true, false]);
  expect(isDoubtfulFace(face(0.3, { personId: "p" }), picture)).toBe(false);
  expect(isDoubtfulFace(face(0.3, { kind: "person" }), picture)).toBe(false);
});

describe("two tracks that are one", () => {
  test("have all frames of both; where both are seen the first counts, and it gives its name", () => {
    const joined = joinTracks(GAPPED, track(8, [at(7), at(8), at(9), at(9), null], { confidence: 1 }));
    expect([joined.id, joined.start, joined.confidence]).toEqual(["t10", 8, 0.5]);
    expect(joined.boxes.map((box) => box?.x ?? null)).toEqual([7, 8, 0, 9, null, 3, 4]);
    expect(Object.keys(joined).sort()).toEqual(["boxes", "confidence", "id", "kind", "start"]);
  });

  test("have what both say, look at and do, in order of time", () => {
    const first = track(10, [at(0), at(1)], {
      speaking: [{ start: 11, end: 12 }],
      acting: [{ start: 10, end: 12 }],
      facing: [{ frame: 11, side: 1 }],
      mouth: [5, null],
    });
    const second = track(8, [at(7), at(8), at(9), at(9)], {
      speaking: [{ start: 8, end: 9 }],
      acting: [{ start: 9, end: 11 }],
      facing: [{ frame: 8, side: -1 }],
      mouth: [1, 2, 3, 4],
    });
    expect(joinTracks(first, second)).toMatchObject({
      speaking: [
        { start: 8, end: 9 },
        { start: 11, end: 12 },
      ],
      acting: [{ start: 9, end: 12 }],
      facing: [
        { frame: 8, side: -1 },
        { frame: 11, side: 1 },
      ],
      mouth: [1, 2, 5, 4],
    });
  });
});
