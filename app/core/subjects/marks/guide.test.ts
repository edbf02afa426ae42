import { describe, expect, test } from "@jest/globals";
import type { Box } from "../../geometry/box";
import { guideOf, ledTrack } from "./guide";
import type { Track } from "../tracking/track";

const track = (id: string, kind: Track["kind"], at: (frame: number) => Box | null): Track => ({
  id,
  kind,
  start: 0,
  boxes: Array.from({ length: 100 }, (_, frame) => at(frame)),
  confidence: 1,
});
const face = (x: number, scale = 1): Box => ({ x, y: 100, width: 40 * scale, height: 50 * scale });
/** Somebody whole, with such a face. */
const body = (x: number): Box => ({ x: x - 40, y: 80, width: 120, height: 400 });
const walker = track("walker", "face", (frame) => (frame < 60 ? face(200 + 4 * frame, 1 + frame / 50) : null));

describe("a guide", () => {
  test("leads a whole person by the face, at the same place and in proportion to it, as far as that is seen", () => {
    const guide = guideOf({ frame: 0, box: body(200) }, undefined, [walker])!;
    expect(guide(0)).toEqual(body(200));
    const later = guide(50)!;
    expect([later.width, later.height]).toEqual([240, 800]);
    const head = walker.boxes[50]!;
    expect((head.x - later.x) / later.width).toBeCloseTo(40 / 120);
    expect((head.y - later.y) / later.height).toBeCloseTo(20 / 400);
    expect(guide(70)).toBeNull();
  });

  test("is the track of a thing that the mark is around, and no track of a person without a face", () => {
    const dog = track("dog", "object", (frame) => ({ x: 300 + frame, y: 200, width: 90, height: 60 }));
    const around = { frame: 10, box: { x: 305, y: 195, width: 100, height: 70 } };
    expect(guideOf(around, undefined, [walker, dog])!(30)).toEqual({ x: 325, y: 195, width: 100, height: 70 });
    const somebody = track("somebody", "person", () => body(200));
    expect(guideOf({ frame: 0, box: body(200) }, undefined, [somebody])).toBeNull();
  });

  test("is none where the mark holds two, or something that was not followed", () => {
    const other = track("other", "face", () => face(215));
    expect(guideOf({ frame: 0, box: body(205) }, undefined, [walker, other])).toBeNull();
    expect(guideOf({ frame: 0, box: { x: 700, y: 50, width: 60, height: 60 } }, undefined, [walker])).toBeNull();
    expect(guideOf({ frame: 80, box: body(200) }, undefined, [walker])).toBeNull();
  });

  test("is none up to a mark that the track has missed", () => {
    const missed = { frame: 50, box: { ...body(700), height: 700 } };
    expect(guideOf({ frame: 0, box: body(200) }, missed, [walker])).toBeNull();
  });
});

describe("a track that is led all the way", () => {
  const PICTURE = { width: 1280, height: 720 };
  const RATE = { num: 25, den: 1 };
  const thing = { id: "mark", shot: { start: 0, end: 100 }, marks: [{ frame: 40, box: body(300) }] };

  test("meets its mark, and goes where the face goes", () => {
    const steady = track("steady", "face", (frame) => face(220 + 2 * frame));
    const led = ledTrack(thing, [steady], PICTURE, RATE)!;
    expect(led).toMatchObject({ id: "mark", kind: "mark", start: 0, confidence: 1 });
    expect(led.boxes[40]).toEqual(body(300));
    expect(led.boxes[80]!.x).toBeCloseTo(body(380).x, 0);
  });

  test("ends where somebody has gone out of the picture, and is none where one is lost within", () => {
    const leaving = track("leaving", "face", (frame) => (frame < 70 ? face(300 + 33 * (frame - 40)) : null));
    const led = ledTrack(thing, [leaving], PICTURE, RATE)!;
    expect(led.boxes[60]).not.toBeNull();
    expect(led.boxes.slice(75)).toEqual(new Array(25).fill(null));
    const lost = track("lost", "face", (frame) => (frame < 70 ? face(220 + 2 * frame) : null));
    expect(ledTrack(thing, [lost], PICTURE, RATE)).toBeNull();
  });
});
