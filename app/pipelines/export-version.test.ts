import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { execFileSync } from "node:child_process";
import { mkdtempSync, readdirSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { fill } from "~/core/composition/composition";
import { FORMAT_IDS, outputFormat } from "~/core/formats/output-formats";
import { type OutputSettings, USUAL_OUTPUT } from "~/core/formats/output-settings";
import { faultsIn } from "~/core/film/film-status";
import { EVERY_TEST } from "../../tests/support/every-test";
import { exportVersion } from "./export-version.server";
import type { FilmFile } from "~/media/film-file";
import { measureLoudness } from "~/media/loudness.server";
import { probeFilm } from "~/media/probe.server";
import type { RenderPlan } from "~/media/render/plan";

/** Six seconds at 25 frames per second: three shots of two seconds, each another colour that moves, and a beep at each second. */
const SECONDS = 6;
const FRAMES = 150;
const TARGET = { width: 72, height: 128 };
/** DNxHR has no smaller pictures. */
const LARGER = { width: 256, height: 256 };
const CUTS = [0, 50, 100];
let folder = "";
let film: FilmFile;
const path = (name: string) => join(folder, name);

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), "glad-pan's render-"));
  const file = path("film.mp4");
  const shots = ["testsrc2", "mandelbrot", "testsrc"].map((name) => `${name}=s=192x128:r=25`);
  const joined = "[0:v]trim=end_frame=50[a];[1:v]trim=end_frame=50[b];[2:v]trim=end_frame=50[c];[a][b][c]concat=n=3[v]";
  const beeps = "aevalsrc='0.4*sin(2*PI*880*t)*lt(mod(t,1),0.08)':d=6:s=48000";
  execFileSync("ffmpeg", [
    ...["-y", "-v", "error", ...shots.flatMap((shot) => ["-f", "lavfi", "-i", shot]), "-f", "lavfi", "-i", beeps],
    ...["-filter_complex", joined, "-map", "[v]", "-map", "3:a", "-pix_fmt", "yuv420p", "-c:v", "libx264"],
    ...["-colorspace", "bt709", "-c:a", "aac", "-t", String(SECONDS), file],
  ]);
  film = { file, name: "film.mp4", info: await probeFilm(file) };
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** The window of the second shot is so far to the right. */
const planOf = (output: Partial<OutputSettings> = {}, right = 0, target = TARGET): RenderPlan => ({
  ...film,
  target,
  ranges: [{ start: 0, end: FRAMES }],
  cuts: CUTS,
  shown: (frame) =>
    fill({ x: 60 + 0.2 * frame + (frame >= 50 && frame < 100 ? right : 0), y: 64, height: 128 }, target),
  output: { ...USUAL_OUTPUT, ...output },
});
/** A checksum of each decoded frame. */
const framesOf = (file: string): string[] =>
  execFileSync("ffmpeg", ["-v", "error", "-i", file, "-map", "0:v:0", "-f", "framemd5", "-"], { encoding: "utf8" })
    .split("\n")
    .filter((line) => line !== "" && !line.startsWith("#"))
    .map((line) => line.split(",").at(-1)!.trim());

describe("parts", () => {
  test("one shot that has changed is rendered again and nothing else, and the file is that of a render of all", async () => {
    const parts = { folder: path("parts"), film: "film" };
    const first = await exportVersion(planOf(), path("first.mp4"), { parts });
    expect([first.made, first.parts, faultsIn(first)]).toEqual([3, 3, []]);
    const changed = await exportVersion(planOf({}, 20), path("changed.mp4"), { parts });
    expect([changed.made, changed.parts, faultsIn(changed)]).toEqual([1, 3, []]);
    const anew = await exportVersion(planOf({}, 20), path("anew.mp4"));
    expect(anew.made).toBe(3);
    const [before, now, whole] = ["first", "changed", "anew"].map((name) => framesOf(path(`${name}.mp4`)));
    expect(now).toEqual(whole);
    expect(now!.slice(0, 50)).toEqual(before!.slice(0, 50));
    expect(now!.slice(100)).toEqual(before!.slice(100));
    expect(now!.slice(50, 100).some((frame, i) => frame === before![50 + i])).toBe(false);
  });

  test("one that is stopped goes on where it was, and leaves nothing but finished parts", async () => {
    const parts = { folder: path("stopped"), film: "film" };
    const controller = new AbortController();
    const onProgress = ({ share }: { share: number }) => share > 0.5 && controller.abort();
    const stopped = exportVersion(planOf(), path("stopped.mp4"), { parts, signal: controller.signal, onProgress });
    await expect(stopped).rejects.toThrow("cancelled");
    const left = readdirSync(parts.folder);
    expect(left.length).toBeGreaterThan(0);
    expect(left.every((name) => /^[\da-f]{40}\.nut$/.test(name))).toBe(true);
    const { made } = await exportVersion(planOf(), path("stopped.mp4"), { parts });
    expect(made).toBe(3 - left.length);
    expect(framesOf(path("stopped.mp4"))).toHaveLength(FRAMES);
  });
});

/** When the film's beeps begin in a file, in seconds. */
function beepsIn(file: string): number[] {
  const levels = "asetnsamples=480,astats=metadata=1:reset=1,ametadata=print:key=lavfi.astats.Overall.RMS_level:file=-";
  const args = ["-v", "error", "-i", file, "-af", levels, "-vn", "-f", "null", "-"];
  const said = execFileSync("ffmpeg", args, { encoding: "utf8" });
  const measured = [...said.matchAll(/pts_time:([\d.]+)\n.*RMS_level=(-?[\d.]+|-inf)/g)];
  const loud = measured.filter(([, , level]) => Number(level) > -30).map(([, time]) => Number(time));
  return loud.filter((time, i) => i === 0 || time - loud[i - 1]! > 0.3);
}

/** One of each family; the others differ in their encoder alone, and only the long run finds that one of them has changed. */
const USUAL_FORMATS: readonly (typeof FORMAT_IDS)[number][] = ["mp4", "prores", "gif"];

describe("formats", () => {
  test.each(EVERY_TEST ? FORMAT_IDS : USUAL_FORMATS)(
    "%s is what it should be: picture, colours, and sound in step with the picture",
    async (format) => {
      const { extension, side, sound } = outputFormat(format);
      const target = side.least > TARGET.width ? LARGER : TARGET;
      const file = path(`format-${format}${extension}`);
      // From a second after the film's first: the beep is at the first frame, and again a second later.
      const plan = { ...planOf({ format }, 0, target), ranges: [{ start: 25, end: 75 }] };
      const figures = await exportVersion(plan, file);
      expect(faultsIn(figures)).toEqual([]);
      expect(figures).toMatchObject({ ...target, frames: 50 });
      expect(figures.soundSeconds === null).toBe(sound === null);
      if (sound === null) return;
      const beeps = beepsIn(file);
      expect(beeps).toHaveLength(2);
      expect(Math.abs(beeps[0]!)).toBeLessThan(0.04);
      expect(Math.abs(beeps[1]! - 1)).toBeLessThan(0.04);
    },
  );
});

/** How bright each pixel of each frame of a file is. */
function greysOf(file: string): Uint8Array[] {
  const size = TARGET.width * TARGET.height;
  const bytes = execFileSync("ffmpeg", ["-v", "error", "-i", file, "-f", "rawvideo", "-pix_fmt", "gray", "-"]);
  return Array.from({ length: bytes.length / size }, (_, i) => bytes.subarray(i * size, (i + 1) * size));
}
const meanOf = (values: ArrayLike<number>): number =>
  Array.from(values).reduce((sum, value) => sum + value, 0) / values.length;
/** How far two frames are apart, in levels of 8 bits. */
const apart = (a: Uint8Array, b: Uint8Array): number => meanOf(a.map((value, i) => Math.abs(value - b[i]!)));

test("a sound that ends before the picture does in the film does so in the file, and that is no fault", async () => {
  const file = path("short-sound.mp4");
  execFileSync("ffmpeg", [
    "-y",
    "-v",
    "error",
    "-i",
    film.file,
    "-map",
    "0:v",
    "-c:v",
    "copy",
    "-af",
    "atrim=0:4",
    "-map",
    "0:a",
    file,
  ]);
  const short = { file, name: "short-sound.mp4", info: await probeFilm(file) };
  const figures = await exportVersion({ ...planOf(), ...short }, path("short.mp4"));
  expect(faultsIn(figures)).toEqual([]);
  expect(figures.soundSeconds).toBeLessThan(4.2);
});

describe("settings", () => {
  test("twice the rate has twice the frames, repeated or mixed, and nothing mixed over a cut", async () => {
    const rate = { num: 50, den: 1 };
    const ranges = [{ start: CUTS[1]! - 5, end: CUTS[1]! + 5 }];
    const [repeated, blended] = await Promise.all(
      (["repeat", "blend"] as const).map(async (retiming) => {
        const file = path(`${retiming}.mp4`);
        const figures = await exportVersion({ ...planOf({ rate, retiming, quality: "best" }), ranges }, file);
        expect(figures).toMatchObject({ frames: 20, rate: "50" });
        expect(faultsIn(figures)).toEqual([]);
        expect(figures.durationSeconds).toBeCloseTo(0.4, 2);
        return greysOf(file);
      }),
    );
    const between = (frames: Uint8Array[], frame: number) =>
      frames[frame - 1]!.map((value, i) => (value + frames[frame + 1]![i]!) / 2);
    // Within the shot the odd frames are the one before, or half of it and half of the next.
    const moved = apart(repeated![4]!, repeated![6]!);
    expect(apart(repeated![5]!, repeated![4]!)).toBeLessThan(0.25 * moved);
    expect(apart(blended![5]!, between(blended!, 5))).toBeLessThan(0.25 * moved);
    // The last before the cut is that of its shot alone.
    expect(apart(blended![9]!, blended![10]!)).toBeGreaterThan(20);
    expect(apart(blended![9]!, blended![8]!)).toBeLessThan(0.25 * moved);
  });

  test("a size in megabytes is not passed", async () => {
    const figures = await exportVersion(planOf({ mostMegabytes: 0.3 }), path("within.mp4"));
    expect(faultsIn(figures)).toEqual([]);
    expect(figures.bytes).toBeLessThanOrEqual(300_000);
    expect(figures.bytes).toBeGreaterThan(150_000);
    await expect(exportVersion(planOf({ mostMegabytes: 0.1 }), path("tiny.mp4"))).rejects.toThrow("too little");
  });

  test("a loudness is reached, below the limit of peaks", async () => {
    const figures = await exportVersion(planOf({ loudness: -20 }), path("loud.mp4"));
    expect(faultsIn(figures)).toEqual([]);
    expect(figures.loudness).toBeGreaterThan(-21);
    expect((await measureLoudness(path("loud.mp4")))!.peak).toBeLessThan(0);
  });
});
