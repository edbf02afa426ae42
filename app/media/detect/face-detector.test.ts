import { beforeAll, beforeEach, describe, expect, test } from "@jest/globals";
import { type Box, boxIou } from "~/core/geometry/box";
import type { YuvImage } from "~/core/image/yuv-image";
import { probeFilm } from "../probe.server";
import { decodeSmall, smallFrames } from "../small-frames.server";
import { FaceDetector } from "./face-detector.server";

const file = "demo/ferrow-kite-day.mp4";
/** In the demo film: there is one face in it, in the left half. */
const FRAME = 250;

/** A picture whose columns from one on are those of its left and right exchanged. */
function mirroredFrom(image: YuvImage, first: number): YuvImage {
  const mirrored = (plane: Uint8Array, width: number) =>
    plane.map((value, at) => {
      const column = at % width;
      return column < first * (width / image.width) ? value : plane[at - column + width - 1 - column]!;
    });
  const half = image.width / 2;
  return {
    ...image,
    luma: mirrored(image.luma, image.width),
    blue: mirrored(image.blue, half),
    red: mirrored(image.red, half),
  };
}

/** The same picture with a tenth of the light. */
function inTheDark(image: YuvImage): YuvImage {
  const towards = (plane: Uint8Array, black: number) => plane.map((value) => black + (value - black) / 10);
  return { ...image, luma: towards(image.luma, 16), blue: towards(image.blue, 128), red: towards(image.red, 128) };
}

/** The frame with the face, reduced to a longer side. */
async function frameWithFace(longSide?: number): Promise<YuvImage> {
  const film = { file, name: file, info: await probeFilm(file) };
  for await (const { image } of decodeSmall(film, { start: FRAME, end: FRAME + 1 }, undefined, longSide)) return image;
  throw new Error("no frame");
}

describe("faces between two thorough looks", () => {
  let image: YuvImage;
  let detector: FaceDetector;

  beforeAll(async () => {
    image = await frameWithFace();
  });
  beforeEach(async () => {
    detector = await FaceDetector.load(smallFrames(image).size);
  });
  const clearest = async (): Promise<Box> => {
    const [face] = await detector.detect(image, true);
    expect(face!.score).toBeGreaterThan(0.8);
    return face!.box;
  };

  test("are looked for nowhere before there was one", async () => {
    expect(await detector.detect(image, false)).toEqual([]);
  });

  test("are found in their places as in the whole picture, and others are not", async () => {
    const face = await clearest();
    const found = await detector.detect(mirroredFrom(image, image.width / 2), false);
    expect(found.map(({ box }) => boxIou(box, face) > 0.85)).toEqual([true]);
  });

  test("are as clear in their places as in the whole picture, also in the dark", async () => {
    const dark = inTheDark(await frameWithFace(320));
    const inDark = await FaceDetector.load(smallFrames(dark).size);
    const [[whole], [place]] = [await inDark.detect(dark, true), await inDark.detect(dark, false)];
    expect(Math.abs(place!.score - whole!.score)).toBeLessThan(0.02);
  });

  test("are looked for everywhere once one is gone from its place", async () => {
    const face = await clearest();
    const found = await detector.detect(mirroredFrom(image, 0), false);
    const elsewhere = { ...face, x: image.width - face.x - face.width };
    expect(found.some(({ box }) => boxIou(box, elsewhere) > 0.6)).toBe(true);
  });
});
