/** How much of a picture an enlargement gives back: photographs are reduced, enlarged again, and compared with what they were. */
import { execFileSync } from "node:child_process";
import { join } from "node:path";
import { cutOut } from "~/core/composition/composition";
import type { Size } from "~/core/geometry/box";
import { wholeOf } from "~/core/geometry/box";
import { Resampler } from "~/media/resample/resampler.server";
import { photographs } from "../photographs";

const FRAME: Size = { width: 1080, height: 1920 };
const FACTORS = [1.4, 1.78, 2.67];
const PHOTOGRAPHS = 6;
/** ffmpeg's own, beside which the resampler's is put. */
const FFMPEG_FILTERS = ["bilinear", "bicubic", "spline", "lanczos"];

const gray = (args: string[]): Buffer =>
  execFileSync("ffmpeg", ["-v", "error", ...args, "-pix_fmt", "gray", "-f", "rawvideo", "-"], { maxBuffer: 1e8 });

/** Peak signal-to-noise ratio, in dB. */
function psnr(a: Uint8Array, b: Uint8Array): number {
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += (a[i]! - b[i]!) ** 2;
  return 10 * Math.log10(255 ** 2 / (sum / a.length));
}

/** A picture of luma alone, enlarged as a render does it. */
function byGladPan(small: Buffer, size: Size): Uint8Array {
  const resampler = new Resampler(size, FRAME);
  resampler.source.fill(128);
  resampler.source.set(small);
  const composition = cutOut(wholeOf(size));
  resampler.compose({
    ...composition,
    size: FRAME,
    panes: composition.panes.map((pane) => ({ ...pane, target: wholeOf(FRAME) })),
  });
  return resampler.target.subarray(0, FRAME.width * FRAME.height);
}

/** Prints a table: mean PSNR over the photographs for each factor. */
export function compareFilters(folder: string): void {
  const { width, height } = FRAME;
  const names = [...FFMPEG_FILTERS, "Glad Pan"];
  console.log(["enlarged", ...names].map((name) => name.padStart(10)).join(""));
  for (const factor of FACTORS) {
    const size = { width: 2 * Math.round(width / factor / 2), height: 2 * Math.round(height / factor / 2) };
    const sums = new Map(names.map((name) => [name, 0]));
    for (const photograph of photographs().slice(0, PHOTOGRAPHS)) {
      const [original, reduced] = [join(folder, "original.png"), join(folder, "reduced.png")];
      const filled = `scale=${width}:${height}:force_original_aspect_ratio=increase:flags=area,crop=${width}:${height}`;
      execFileSync("ffmpeg", ["-y", "-v", "error", "-i", photograph, "-vf", `${filled},format=gray`, original]);
      const smaller = `scale=${size.width}:${size.height}:flags=area,format=gray`;
      execFileSync("ffmpeg", ["-y", "-v", "error", "-i", original, "-vf", smaller, reduced]);
      const truth = gray(["-i", original]);
      const add = (name: string, picture: Uint8Array) => sums.set(name, sums.get(name)! + psnr(picture, truth));
      for (const filter of FFMPEG_FILTERS) {
        add(filter, gray(["-i", reduced, "-vf", `scale=${width}:${height}:flags=${filter}+accurate_rnd`]));
      }
      add("Glad Pan", byGladPan(gray(["-i", reduced]), size));
    }
    const cells = names.map((name) => `${(sums.get(name)! / PHOTOGRAPHS).toFixed(2)} dB`.padStart(10));
    console.log(`${factor.toFixed(2)} times`.padStart(10) + cells.join(""));
  }
}
