/** Where a rendered window really is, against where it should be, in pixels of the render. */
import { spawn } from "node:child_process";
import { once } from "node:events";
import { join } from "node:path";
import { USUAL_OUTPUT } from "~/core/formats/output-settings";
import { fill } from "~/core/composition/composition";
import { aspectRatio } from "~/core/geometry/crop-window";
import { decodeFrames } from "~/media/decode.server";
import { probeFilm } from "~/media/probe.server";
import { renderFilm } from "~/media/render/render.server";
import { Resampler } from "~/media/resample/resampler.server";

export const PICTURE = { width: 1920, height: 1080 };
export const TARGET = { width: 1080, height: 1920 };
const ASPECT = aspectRatio(TARGET);
const WINDOW_WIDTH = PICTURE.height * ASPECT;
const FRAMES = 60;
/** Every so many pixels of the render are looked at, along both sides. */
const EVERY = 3;
/** Left out beside the edges, where there is nothing beyond the picture to interpolate with. */
const MARGIN = 9;

/** Waves over the film's picture: how bright, how fast they change across and down, and where they begin. */
const WAVES = [
  [46, 0.071, 0.013, 0.3],
  [28, 0.143, -0.031, 1.7],
  [18, 0.317, 0.057, 4.1],
] as const;
const brightness = (x: number, y: number) =>
  WAVES.reduce((sum, [size, across, down, at]) => sum + size * Math.sin(across * x + down * y + at), 126);
const slope = (x: number, y: number) =>
  WAVES.reduce((sum, [size, across, down, at]) => sum + size * across * Math.cos(across * x + down * y + at), 0);

function stillFrame(): Buffer {
  const { width, height } = PICTURE;
  const frame = Buffer.alloc((width * height * 3) / 2, 128);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) frame[y * width + x] = Math.round(brightness(x + 0.5, y + 0.5));
  }
  return frame;
}

/** A film of one picture that stands still, without loss: whatever moves in the render is the window. */
export async function makeStillFilm(folder: string): Promise<string> {
  const file = join(folder, "still.mp4");
  const size = `${PICTURE.width}x${PICTURE.height}`;
  const ffmpeg = spawn("ffmpeg", [
    ...["-y", "-v", "error", "-f", "rawvideo", "-pix_fmt", "yuv420p", "-s", size, "-r", "25", "-i", "pipe:0"],
    ...["-c:v", "libx264", "-preset", "veryfast", "-qp", "0", "-colorspace", "bt709", file],
  ]);
  const closed = once(ffmpeg, "close");
  const frame = stillFrame();
  for (let i = 0; i < FRAMES; i++) if (!ffmpeg.stdin.write(frame)) await once(ffmpeg.stdin, "drain");
  ffmpeg.stdin.end();
  await closed;
  return file;
}

/** How far a render's picture is from where it should be, by least squares on the pattern's slope, in its pixels. */
function shiftOf(luma: Uint8Array, left: number): number {
  const step = WINDOW_WIDTH / TARGET.width;
  let [across, along] = [0, 0];
  for (let y = MARGIN; y < TARGET.height - MARGIN; y += EVERY) {
    for (let x = MARGIN; x < TARGET.width - MARGIN; x += EVERY) {
      const [u, v] = [left + (x + 0.5) * step, (y + 0.5) * step];
      const steep = slope(u, v) * step;
      across += (luma[y * TARGET.width + x]! - brightness(u, v)) * steep;
      along += steep * steep;
    }
  }
  return -across / along;
}

export interface Placement {
  /** Root of the mean square of the error. */
  rms: number;
  largest: number;
  /**
   * How much of the error comes back with the window's place between two pixels: the range of its means in eighths of a
   * pixel. A window that goes in steps has the whole error here.
   */
  stepping: number;
}

function placement(errors: readonly number[], lefts: readonly number[]): Placement {
  const eighths = new Map<number, number[]>();
  errors.forEach((error, i) => {
    const eighth = Math.floor((lefts[i]! % 1) * 8);
    eighths.set(eighth, [...(eighths.get(eighth) ?? []), error]);
  });
  const means = [...eighths.values()].map((each) => each.reduce((a, b) => a + b) / each.length);
  return {
    rms: Math.sqrt(errors.reduce((sum, error) => sum + error * error, 0) / errors.length),
    largest: Math.max(...errors.map(Math.abs)),
    stepping: Math.max(...means) - Math.min(...means),
  };
}

/** Where each frame of a file is, as it is decoded. */
async function shiftsIn(file: string, lefts: readonly number[]): Promise<number[]> {
  const info = await probeFilm(file);
  const shifts: number[] = [];
  for await (const frame of decodeFrames({ file, name: "render", info }, {})) {
    shifts.push(shiftOf(frame, lefts[shifts.length]!));
  }
  return shifts;
}

/**
 * A window that moves so many pixels of the source per frame: where it is in each frame as it is composed, and in the file
 * that comes of it.
 */
export async function measurePlacement(
  file: string,
  folder: string,
  speed: number,
): Promise<{ composed: Placement; encoded: Placement }> {
  const info = await probeFilm(file);
  const room = PICTURE.width - WINDOW_WIDTH;
  const frames = Math.min(FRAMES, Math.floor((room - 2) / speed));
  const lefts = Array.from({ length: frames }, (_, frame) => 1.3 + speed * frame);
  const shown = (frame: number) => fill({ x: lefts[frame]! + WINDOW_WIDTH / 2, y: 540, height: 1080 }, TARGET);

  const resampler = new Resampler(PICTURE, TARGET);
  resampler.source.set(stillFrame());
  const composed = lefts.map((left, frame) => {
    resampler.compose(shown(frame));
    return shiftOf(resampler.target, left);
  });
  const out = join(folder, "moved.mp4");
  await renderFilm(
    {
      file,
      name: "still",
      info,
      target: TARGET,
      ranges: [{ start: 0, end: frames }],
      shown,
      output: USUAL_OUTPUT,
    },
    out,
  );
  return { composed: placement(composed, lefts), encoded: placement(await shiftsIn(out, lefts), lefts) };
}
