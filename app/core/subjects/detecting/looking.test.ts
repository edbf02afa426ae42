import { describe, expect, test } from "@jest/globals";
import { texture, yuvPicture } from "../../../../tests/support/yuv-picture";
import { joinTracklets } from "../tracking/join-tracklets";
import type { Tracklet } from "../tracking/associate";
import { facePatches, mouthMovement } from "./mouth";
import { salientThings } from "./saliency";
import { sharpnessOf } from "./sharpness";

describe("what stands out", () => {
  test("is the thing unlike what is around it", () => {
    const thing = yuvPicture(320, 180, (x, y) => {
      const grey = 110 + 25 * texture(x, y);
      return Math.hypot(x - 210, y - 80) < 22 ? [210, 60, 40] : [grey, grey + 5, grey];
    });
    const [found, ...others] = salientThings(thing);
    const { kind, box } = found!;
    expect(kind).toBe("salient");
    expect(others).toEqual([]);
    expect(Math.abs(box.x + box.width / 2 - 210)).toBeLessThan(16);
    expect(Math.abs(box.y + box.height / 2 - 80)).toBeLessThan(16);
  });

  test("is nothing in an even picture", () => {
    expect(salientThings(yuvPicture(320, 180, (x, y) => [120 + 20 * texture(x, y), 120, 120]))).toEqual([]);
  });
});

describe("a mouth", () => {
  const FACE = { x: 100, y: 40, width: 60, height: 72 };
  const MOUTH = { x: 130, y: 95 };
  const face = (open: number, light = 0) =>
    yuvPicture(320, 180, (x, y) => {
      const skin = 150 + light + 30 * texture(x, y, 6);
      return Math.hypot((x - MOUTH.x) / 14, (y - MOUTH.y) / (2 + 7 * open)) < 1 ? [60, 25, 25] : [skin, skin, skin];
    });
  const movement = (a: ReturnType<typeof face>, b: ReturnType<typeof face>) =>
    mouthMovement(facePatches(a, FACE, MOUTH)!, facePatches(b, FACE, MOUTH)!);

  test("moves when it opens, and not when only the light changes", () => {
    expect(movement(face(0), face(1))).toBeGreaterThan(0.2);
    expect(movement(face(0.3), face(0.3, 25))).toBeLessThan(0.05);
    expect(movement(face(0.3), face(0.3))).toBe(0);
  });

  test("is not looked at in a face that is small or cut by the picture's edge", () => {
    expect(facePatches(face(0), { ...FACE, width: 12 }, MOUTH)).toBeNull();
    expect(facePatches(face(0), FACE, { x: 2, y: 95 })).toBeNull();
  });
});

test("a blurred picture is less sharp than a clear one", () => {
  const clear = yuvPicture(120, 120, (x, y) => [120 + 150 * texture(x, y, 3), 120, 120]);
  const blurred = yuvPicture(120, 120, (x, y) => [120 + 150 * texture(x, y, 14), 120, 120]);
  const box = { x: 20, y: 20, width: 80, height: 80 };
  expect(sharpnessOf(clear, box)).toBeGreaterThan(2 * sharpnessOf(blurred, box));
  expect(sharpnessOf(clear, { x: 300, y: 0, width: 10, height: 10 })).toBe(0);
});

describe("pieces of a track", () => {
  const RULES = { maxGapFrames: 60, reach: 2, reachPerSecond: 2.5, maxUnlikeness: 0.35, fps: 30 };
  const look = (colour: number) => Array.from({ length: 55 }, (_, i) => (i === colour ? 100 : 0));
  const piece = (from: number, to: number, x: number, colour: number): Tracklet => ({
    kind: "face",
    sightings: [from, to].map((frame) => ({
      frame,
      step: 2,
      detection: { kind: "face", box: { x, y: 100, width: 40, height: 50 }, score: 0.9, signature: look(colour) },
    })),
  });
  const spans = (tracklets: Tracklet[]) =>
    tracklets.map(({ sightings }) => [sightings[0]!.frame, sightings.at(-1)!.frame]).sort((a, b) => a[0]! - b[0]!);

  test("of one who was hidden for a while are joined, whoever stood there meanwhile", () => {
    const joined = joinTracklets([piece(0, 30, 100, 3), piece(70, 99, 220, 3), piece(20, 99, 180, 9)], RULES);
    expect(spans(joined)).toEqual([
      [0, 99],
      [20, 99],
    ]);
  });

  test("stay apart when they look unlike, are too far off, or too long gone", () => {
    expect(joinTracklets([piece(0, 30, 100, 3), piece(70, 99, 120, 9)], RULES)).toHaveLength(2);
    expect(joinTracklets([piece(0, 30, 100, 3), piece(40, 99, 900, 3)], RULES)).toHaveLength(2);
    expect(joinTracklets([piece(0, 30, 100, 3), piece(95, 99, 100, 3)], RULES)).toHaveLength(2);
  });
});
