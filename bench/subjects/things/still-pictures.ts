/** Single pictures of the benchmark's scenes, and of grounds that nothing was put into. */
import { type Canvas, createCanvas } from "@napi-rs/canvas";
import { type Box, scaleBox } from "~/core/geometry/box";
import type { YuvImage } from "~/core/image/yuv-image";
import { clamped } from "~/core/numbers/clamped";
import { smallFrames } from "~/media/small-frames.server";
import { seeded } from "../../../demo/film/random";
import { yuvPicture } from "../../../tests/support/yuv-picture";
import { STAGE } from "./draw-things";
import type { Pictures } from "./pictures";
import { drawingOf } from "./plan-things";

export const { size: STILL_SIZE, scale } = smallFrames(STAGE);
/** Standard deviation of the grain, 0 to 255. */
const GRAINS = [2, 5, 3, 9, 4];
/** Parts of a photograph that nothing was put into: corner and side, as shares of it. */
const PARTS = [
  { x: 0, y: 0, side: 1 },
  { x: 0.2, y: 0.1, side: 0.6 },
  { x: 0.3, y: 0.3, side: 0.5 },
  { x: 0.5, y: 0.1, side: 0.5 },
];

function pictureOf(canvas: Canvas, seed: number): YuvImage {
  const data = canvas.data();
  const random = seeded(seed);
  const grain = GRAINS[seed % GRAINS.length]!;
  return yuvPicture(STILL_SIZE.width, STILL_SIZE.height, (x, y) => {
    const at = 4 * (y * STILL_SIZE.width + x);
    const noise = grain * (random() + random() + random() - 1.5);
    const value = (channel: number) => clamped(data[at + channel]! + noise, 0, 255);
    return [value(0), value(1), value(2)];
  });
}

/** A picture, and the things in it that are right. */
export interface Still {
  image: YuvImage;
  things: Box[];
}

/** A picture of a set with nothing that was set aside. */
export function stillOf(set: string, seed: number, pictures: Pictures): Still {
  const canvas = createCanvas(STILL_SIZE.width, STILL_SIZE.height);
  const g = canvas.getContext("2d");
  g.scale(STILL_SIZE.width / STAGE.width, STILL_SIZE.height / STAGE.height);
  const { things } = drawingOf(set, seed, pictures, false)(g, 0.5 + 1.2 * (seed % 3));
  return { image: pictureOf(canvas, seed), things: things.map((box) => scaleBox(box, 1 / scale)) };
}

/** Pictures of nothing but ground. */
export function* emptyStills({ grounds }: Pictures): Generator<Still> {
  for (const [seed, ground] of grounds.entries()) {
    for (const { x, y, side } of PARTS) {
      const canvas = createCanvas(STILL_SIZE.width, STILL_SIZE.height);
      const [width, height] = [side * ground.width, side * ground.height];
      const g = canvas.getContext("2d");
      g.drawImage(ground, x * ground.width, y * ground.height, width, height, 0, 0, canvas.width, canvas.height);
      yield { image: pictureOf(canvas, seed), things: [] };
    }
  }
}
