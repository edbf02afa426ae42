import { describe, expect, test } from "@jest/globals";
import { associate, type AssociationRules } from "./associate";
import type { Detection, FrameDetections } from "../detecting/detection";

const RULES: AssociationRules = { highScore: 0.6, maxGapFrames: 12, reach: 1.5 };
const SHOT = { start: 0, end: 200 };
const face = (x: number, score = 0.9, y = 100): Detection => ({
  kind: "face",
  box: { x, y, width: 40, height: 50 },
  score,
});
const seen = (detections: (t: number) => Detection[], every = 3, count = 20): FrameDetections[] =>
  Array.from({ length: count }, (_, i) => ({
    frame: i * every,
    looked: ["face"],
    step: 1,
    detections: detections(i * every),
  }));
const spans = (frames: FrameDetections[], shot = SHOT) =>
  associate(frames, "face", shot, RULES)
    .map(({ sightings }) => [sightings[0]!.frame, sightings.at(-1)!.frame, sightings.length])
    .sort((a, b) => a[0]! - b[0]!);

describe("association", () => {
  test("two who pass each other keep to their own ways", () => {
    const tracklets = associate(
      seen((t) => [face(100 + 5 * t), face(400 - 5 * t, 0.9, 130)]),
      "face",
      SHOT,
      RULES,
    );
    expect(tracklets).toHaveLength(2);
    for (const { sightings } of tracklets) {
      const rows = new Set(sightings.map(({ detection }) => detection.box.y));
      expect(rows.size).toBe(1);
      expect(sightings).toHaveLength(20);
    }
  });

  test("a person goes on with the same face only, however near another comes", () => {
    const person = (x: number, faceId: string): Detection => ({
      kind: "person",
      box: { x, y: 60, width: 120, height: 300 },
      score: 0.9,
      faceId,
    });
    // While one passes right before the other who sits, only the first is seen; before, only the second was.
    const frames = seen((t) => {
      const walker = person(60 + 8 * t, "walker");
      if (t < 24) return [person(300, "sitter")];
      return t < 42 ? [walker] : [walker, person(300, "sitter")];
    }).map((seen) => ({ ...seen, looked: ["person" as const] }));
    const tracklets = associate(frames, "person", SHOT, { ...RULES, maxGapFrames: 40 });
    const faces = tracklets.map(({ sightings }) => new Set(sightings.map(({ detection }) => detection.faceId)));
    expect(faces.map((set) => [...set])).toEqual(expect.arrayContaining([["walker"], ["sitter"]]));
    expect(tracklets).toHaveLength(2);
  });

  test("weak sightings go on with a track, and begin none", () => {
    expect(spans(seen((t) => [face(100 + t, t > 20 && t < 40 ? 0.3 : 0.9)]))).toEqual([[0, 57, 20]]);
    expect(spans(seen(() => [face(100, 0.4)]))).toEqual([]);
  });

  test("who is gone for longer than a while is somebody new; for a moment, the same", () => {
    expect(spans(seen((t) => (t >= 15 && t < 24 ? [] : [face(100 + t)])))).toEqual([[0, 57, 17]]);
    expect(spans(seen((t) => (t >= 15 && t < 36 ? [] : [face(100 + t)])))).toHaveLength(2);
  });

  test("what turns up far away, or of quite another size, is something else", () => {
    expect(spans(seen((t) => [face(t < 30 ? 100 : 900)]))).toHaveLength(2);
    const grown = (t: number): Detection => ({ ...face(100), box: { x: 0, y: 0, width: 300, height: 340 }, score: t });
    expect(spans(seen((t) => (t < 30 ? [face(100)] : [grown(0.9)])))).toHaveLength(2);
  });

  test("only the shot counts, and only frames in which somebody looked", () => {
    const frames = seen(() => [face(100)]);
    expect(spans(frames, { start: 9, end: 30 })).toEqual([[9, 27, 7]]);
    expect(spans(frames.map((frame) => ({ ...frame, looked: ["person"] })))).toEqual([]);
  });
});
