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

describe("faces between two thorough looks", () => {
  let image: YuvImage;
  let detector: FaceDetector;

  beforeAll(async () => {
    const info = await probeFilm(file);
    const film = { file, name: file, info };
    for await (const decoded of decodeSmall(film, { start: FRAME, end: FRAME + 1 })) image = decoded.image;
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

  test("are looked for everywhere once one is gone from its place", async () => {
    const face = await clearest();
    const found = await detector.detect(mirroredFrom(image, 0), false);
    const elsewhere = { ...face, x: image.width - face.x - face.width };
    expect(found.some(({ box }) => boxIou(box, elsewhere) > 0.6)).toBe(true);
  });
});
