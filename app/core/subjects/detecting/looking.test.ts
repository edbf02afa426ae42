import { clamped } from "../../numbers/clamped";
import { describe, expect, test } from "@jest/globals";
import { texture, yuvPicture } from "../../../../tests/support/yuv-picture";
import { boxIou } from "../../geometry/box";
import { joinTracklets } from "../tracking/join-tracklets";
import type { Tracklet } from "../tracking/associate";
import { facePatches, mouthMovement } from "./mouth";
import { salientThings } from "./saliency";
import { detailSide, sharpnessOf } from "./sharpness";

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

  test("is each of several things, the one with most first, and all of one that reaches down to the foot", () => {
    const boxes = [
      { x: 40, y: 60, width: 40, height: 50 },
      { x: 200, y: 70, width: 70, height: 110 },
    ];
    const picture = yuvPicture(320, 180, (x, y) => {
      const inside = boxes.some((box) => x >= box.x && x < box.x + box.width && y >= box.y && y < box.y + box.height);
      const grey = 120 + 20 * texture(x, y);
      return inside ? [40, 60, 190] : [grey, grey, grey];
    });
    const found = salientThings(picture);
    expect(found).toHaveLength(2);
    for (const [i, { box }] of [boxes[1]!, boxes[0]!].map((box) => ({ box })).entries()) {
      expect(boxIou(found[i]!.box, box)).toBeGreaterThan(0.7);
    }
  });

  test("is nothing of what holds it: an arm is lower than what is at its end", () => {
    const picture = yuvPicture(320, 180, (x, y) => {
      if (x >= 60 && x < 110 && y >= 50 && y < 120) return [30, 150, 60];
      if (x >= 110 && y >= 78 && y < 98) return [200, 150, 120];
      const grey = 90 + 20 * texture(x, y);
      return [grey, grey, grey];
    });
    const { box } = salientThings(picture)[0]!;
    expect(box.x + box.width).toBeLessThan(135);
  });

  test("is the thing at the end of a slanted arm that is as wide as the thing, and nothing of the arm", () => {
    const [slope, half] = [0.35, 18];
    const onArm = (x: number, y: number) => Math.abs(y - 80 - slope * (x - 100)) < half;
    const scene = (leadsOut: boolean) =>
      yuvPicture(320, 180, (x, y) => {
        if (x >= 60 && x < 100 && y >= 60 && y < 105) return [40, 90, 210];
        if (x >= 100 && x < 210 && onArm(x, y)) return [200, 150, 120];
        if (leadsOut && x >= 210 && onArm(x, y)) return [60, 110, 60];
        const grey = 100 + 10 * texture(x, y);
        return [grey, grey, grey];
      });
    const { box: held } = salientThings(scene(true))[0]!;
    expect(held.x).toBeLessThan(70);
    expect(held.x + held.width).toBeLessThan(125);
    // Without the rest of an arm it may be a creature, or a car.
    const { box: whole } = salientThings(scene(false))[0]!;
    expect(whole.x + whole.width).toBeGreaterThan(160);
  });

  test("is all of a creature, its narrow muzzle and its plain body, and not only what is brightest about it", () => {
    const picture = yuvPicture(320, 180, (x, y) => {
      if (Math.hypot(x - 130, y - 60) < 12) return [250, 250, 250];
      if (Math.hypot(x - 140, y - 65) < 32 || Math.hypot((x - 170) / 1.4, y - 110) < 45) return [150, 90, 50];
      if (x >= 75 && x < 115 && y >= 68 && y < 84) return [150, 90, 50];
      const grey = 110 + 15 * texture(x, y);
      return [0.9 * grey, grey, 0.9 * grey];
    });
    const { box } = salientThings(picture)[0]!;
    expect(box.x).toBeLessThan(90);
    expect(box.x + box.width).toBeGreaterThan(215);
  });

  test("is the thing in a hand, and not the hand, where a sleeve leads out of the picture", () => {
    const picture = yuvPicture(320, 180, (x, y) => {
      if (x >= 60 && x < 84 && y >= 70 && y < 112) return [40, 90, 210];
      const onArm = Math.abs(y - 92) < 14;
      if (onArm && x >= 84 && x < 160) return [215, 160, 130];
      if (onArm && x >= 160) return [30, 60, 30];
      const grey = 120 + 10 * texture(x, y);
      return [grey, grey, grey];
    });
    const { box } = salientThings(picture)[0]!;
    expect(box.x).toBeLessThan(70);
    expect(box.x + box.width).toBeLessThan(115);
  });

  test("is each thing alone, where the ground between two is in a soft shadow", () => {
    const cup = { x: 96, y: 60, width: 48, height: 60 };
    const bush = { x: 191, y: 56, width: 48, height: 68 };
    const picture = yuvPicture(320, 180, (x, y) => {
      if (x >= cup.x && x < cup.x + cup.width && y >= cup.y && y < cup.y + cup.height) return [20, 160, 170];
      if (Math.hypot((x - 215) / 24, (y - 90) / 34) < 1) return [25, 45, 35];
      const shadow = 100 * Math.exp(-(((x - 172) / 26) ** 2) - ((y - 95) / 20) ** 2);
      const grey = 150 - shadow + (y > 40 ? 12 : 2) * texture(x, y);
      return [grey, 0.9 * grey, 0.6 * grey];
    });
    const found = salientThings(picture);
    expect(found).toHaveLength(2);
    for (const { box } of found) expect(Math.max(boxIou(box, cup), boxIou(box, bush))).toBeGreaterThan(0.7);
  });

  test("is looked for between a film's own bars", () => {
    const picture = yuvPicture(320, 180, (x, y) => {
      if (y < 30 || y >= 150) return [0, 0, 0];
      return Math.hypot(x - 100, y - 90) < 25 ? [200, 40, 40] : [150, 160, 150];
    });
    const { box } = salientThings(picture, { x: 0, y: 30, width: 320, height: 120 })[0]!;
    expect(boxIou(box, { x: 75, y: 65, width: 50, height: 50 })).toBeGreaterThan(0.6);
  });

  test("is found where nothing at all is in focus", () => {
    const picture = yuvPicture(320, 180, (x, y) => {
      const light = 60 + 120 * clamped((70 - Math.hypot(x - 160, y - 90)) / 60, 0, 1);
      return [light, 0.8 * light, 0.5 * light];
    });
    const { box } = salientThings(picture)[0]!;
    expect(boxIou(box, { x: 120, y: 50, width: 80, height: 80 })).toBeGreaterThan(0.4);
  });

  test("is nothing in an even picture", () => {
    expect(salientThings(yuvPicture(320, 180, (x, y) => [120 + 20 * texture(x, y), 120, 120]))).toEqual([]);
  });
});

test("there is more detail at the end of a thing where eyes and muzzle are", () => {
  const animal = (head: (x: number) => boolean) =>
    yuvPicture(200, 100, (x, y) => [120 + (head(x) ? 160 : 10) * texture(x, y, 4), 110, 100]);
  const box = { x: 20, y: 20, width: 160, height: 60 };
  expect(
    detailSide(
      animal((x) => x > 140),
      box,
    ),
  ).toBeGreaterThan(0.3);
  expect(
    detailSide(
      animal((x) => x < 60),
      box,
    ),
  ).toBeLessThan(-0.3);
  expect(
    Math.abs(
      detailSide(
        animal(() => true),
        box,
      ),
    ),
  ).toBeLessThan(0.1);
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
