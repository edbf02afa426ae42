import { describe, expect, test } from "@jest/globals";
import type { Box } from "../../geometry/box";
import type { CameraStep } from "../detecting/camera-motion";
import { farEnd, stayingOn, whatIsHeld, withoutHolder, withoutMergers } from "./stay";
import type { Tracklet } from "./associate";
import { boxAt, type Track } from "./track";

const HD = { width: 1920, height: 1080 };
const SHOT = { start: 100, end: 200 };
const box = (x: number): Box => ({ x, y: 400, width: 100, height: 80 });
const moving = (start: number, xs: number[]): Track => ({
  id: "s100-motion-1",
  kind: "motion",
  start,
  boxes: xs.map(box),
  confidence: 0.8,
});
/** A camera that goes on by so many pixels in each step of two frames. */
const camera = (tx: number): CameraStep[] =>
  Array.from({ length: 49 }, (_, i) => ({ frame: 102 + 2 * i, a: 1, b: 0, tx, ty: 0, share: 0.9 }));

describe("what has stopped", () => {
  test("is still there, and was before it began to move", () => {
    const track = stayingOn(moving(130, [500, 510, 520, 530]), SHOT, camera(0), HD);
    expect(track.start).toBe(100);
    expect(track.boxes).toHaveLength(100);
    expect(boxAt(track, 100)).toEqual(box(500));
    expect(boxAt(track, 132)).toEqual(box(520));
    expect(boxAt(track, 199)).toEqual(box(530));
  });

  test("goes with the picture when the camera pans, until it is out of it", () => {
    const track = stayingOn(moving(130, [500, 500]), SHOT, camera(-20), HD);
    expect(boxAt(track, 141)!.x).toBeCloseTo(400, 5);
    expect(boxAt(track, 110)!.x).toBeCloseTo(700, 5);
    expect(boxAt(track, 199)).toBeNull();
  });

  test("is not there when it went out of the picture, or before it came in", () => {
    const track = stayingOn(moving(130, [0, 200, 400]), SHOT, camera(0), HD);
    expect(boxAt(track, 129)).toBeNull();
    expect(boxAt(track, 150)).toEqual(box(400));
  });
});

test("a sighting that holds two things at once is left out, a thing that grows is not", () => {
  const sighting = (frame: number, size: number) => ({
    frame,
    step: 1,
    detection: { kind: "motion" as const, score: 0.8, box: { x: 0, y: 0, width: size, height: size } },
  });
  const passing = [100, 104, 98, 200, 190, 102, 99].map((size, i) => sighting(5 * i, size));
  const kept = withoutMergers({ kind: "motion", sightings: passing }).sightings;
  expect(kept.map(({ frame }) => frame)).toEqual([0, 5, 10, 25, 30]);
  const growing = Array.from({ length: 40 }, (_, i) => sighting(5 * i, 50 * 1.02 ** i));
  expect(withoutMergers({ kind: "motion", sightings: growing }).sightings).toHaveLength(40);
});

describe("what is held", () => {
  const seen = (kind: "salient" | "motion", boxes: Box[]): Tracklet => ({
    kind,
    sightings: boxes.map((box, i) => ({ frame: 10 * i, step: 2, detection: { kind, score: 0.8, box } })),
  });

  test("is told from the sightings in which it was taken together with the arm", () => {
    const alone = { x: 400, y: 400, width: 100, height: 120 };
    const held = { ...alone, width: 420 };
    const { sightings } = withoutHolder(seen("salient", [held, held, held, alone, alone]));
    expect(sightings.map(({ frame }) => frame)).toEqual([30, 40]);
  });

  test("is at the far end of what leads out of the picture, and not of what only goes out of it", () => {
    const arm = { x: 1200, y: 500, width: 720, height: 200 };
    const ends = farEnd(seen("motion", [arm, { ...arm, x: 1300, width: 620 }]), HD).sightings;
    expect(ends.map(({ detection }) => detection.box)).toEqual([
      { x: 1200, y: 500, width: 160, height: 200 },
      { x: 1300, y: 500, width: 160, height: 200 },
    ]);
    const left = farEnd(seen("motion", [{ ...arm, x: 0 }]), HD).sightings[0]!.detection.box;
    expect(left).toEqual({ x: 560, y: 500, width: 160, height: 200 });
    const leaving = seen("motion", [{ ...arm, x: 300 }, { ...arm, x: 700 }, arm]);
    expect(farEnd(leaving, HD)).toBe(leaving);
  });

  test("is told from the sightings in which it was told from the arm that moves it, if those are the most", () => {
    const withArm = { x: 400, y: 400, width: 500, height: 300 };
    const thing = { x: 400, y: 400, width: 100, height: 120 };
    const tracklet = seen("motion", [thing, thing, withArm]);
    tracklet.sightings
      .slice(0, 2)
      .forEach(({ detection }) => Object.assign(detection, { withArm, propagated: [thing] }));
    expect(whatIsHeld(tracklet).sightings.map(({ detection }) => detection.box)).toEqual([thing, thing]);
    const once = { ...tracklet, sightings: tracklet.sightings.slice(0, 1) };
    expect(whatIsHeld(once).sightings[0]!.detection.box).toEqual(withArm);
    for (const { detection } of tracklet.sightings.slice(1)) delete detection.withArm;
    const wholes = whatIsHeld(tracklet).sightings.map(({ detection }) => detection);
    expect(wholes.map(({ box }) => box)).toEqual([withArm, thing, withArm]);
    expect(wholes[0]!.propagated).toEqual([]);
  });
});
