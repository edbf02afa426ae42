import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { execFileSync } from "node:child_process";
import { mkdtempSync, readdirSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { fill } from "~/core/composition/composition";
import { FORMAT_IDS, outputFormat } from "~/core/formats/output-formats";
import { type OutputSettings, USUAL_OUTPUT } from "~/core/formats/output-settings";
import { faultsIn } from "~/core/film-status";
import { exportVersion } from "./export-version.server";
import type { FilmFile } from "~/media/film-file";
import { measureLoudness } from "~/media/loudness.server";
import { probeFilm } from "~/media/probe.server";
import type { RenderPlan } from "~/media/render/plan";

/** Six seconds at 25 frames a second: three shots of two seconds, each another colour that moves, and a beep at each second. */
const SECONDS = 6;
const FRAMES = 150;
const TARGET = { width: 270, height: 480 };
const CUTS = [0, 50, 100];
let folder = "";
let film: FilmFile;
const path = (name: string) => join(folder, name);

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), "glad-pan-render-"));
  const file = path("film.mp4");
  const shots = ["testsrc2", "mandelbrot", "testsrc"].map((name) => `${name}=s=640x360:r=25`);
  const joined = "[0:v]trim=end_frame=50[a];[1:v]trim=end_frame=50[b];[2:v]trim=end_frame=50[c];[a][b][c]concat=n=3[v]";
  const beeps = "aevalsrc='0.4*sin(2*PI*880*t)*lt(mod(t,1),0.08)':d=6:s=48000";
  execFileSync("ffmpeg", [
    ...["-y", "-v", "error", ...shots.flatMap((shot) => ["-f", "lavfi", "-i", shot]), "-f", "lavfi", "-i", beeps],
    ...["-filter_complex", joined, "-map", "[v]", "-map", "3:a", "-pix_fmt", "yuv420p", "-c:v", "libx264"],
    ...["-colorspace", "bt709", "-c:a", "aac", "-t", String(SECONDS), file],
  ]);
  film = { file, name: "film.mp4", info: await probeFilm(file) };
}, 60_000);
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** The window of the second shot is so far to the right. */
const planOf = (output: Partial<OutputSettings> = {}, right = 0): RenderPlan => ({
  ...{ ...film, target: TARGET, ranges: [{ start: 0, end: FRAMES }], cuts: CUTS },
  shown: (frame) =>
    fill({ x: 200 + 0.7 * frame + (frame >= 50 && frame < 100 ? right : 0), y: 180, height: 360 }, TARGET),
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
    const changed = await exportVersion(planOf({}, 60), path("changed.mp4"), { parts });
    expect([changed.made, changed.parts, faultsIn(changed)]).toEqual([1, 3, []]);
    const anew = await exportVersion(planOf({}, 60), path("anew.mp4"));
    expect(anew.made).toBe(3);
    const [before, now, whole] = ["first", "changed", "anew"].map((name) => framesOf(path(`${name}.mp4`)));
    expect(now).toEqual(whole);
    expect(now!.slice(0, 50)).toEqual(before!.slice(0, 50));
    expect(now!.slice(100)).toEqual(before!.slice(100));
    expect(now!.slice(50, 100).some((frame, i) => frame === before![50 + i])).toBe(false);
    // Another quality is made of other parts.
    expect((await exportVersion(planOf({ quality: "small" }), path("small.mp4"), { parts })).made).toBe(3);
  }, 120_000);

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
  }, 60_000);
});

describe("formats", () => {
  test.each(FORMAT_IDS)(
    "%s is what it should be, picture, sound and colours",
    async (format) => {
      const file = path(`format-${format}${outputFormat(format).extension}`);
      // Two seconds are enough of what takes long.
      const plan = { ...planOf({ format }), ranges: [{ start: 25, end: 75 }] };
      const figures = await exportVersion(plan, file);
      expect(faultsIn(figures)).toEqual([]);
      expect(figures).toMatchObject({ ...TARGET, frames: 50 });
      expect(figures.soundSeconds === null).toBe(outputFormat(format).sound === null);
    },
    60_000,
  );
});

describe("settings", () => {
  test("twice the rate has twice the frames, repeated or mixed, and nothing mixed over a cut", async () => {
    const rate = { num: 50, den: 1 };
    const repeated = await exportVersion(planOf({ rate }), path("repeated.mp4"));
    const blended = await exportVersion(planOf({ rate, retiming: "blend" }), path("blended.mp4"));
    for (const figures of [repeated, blended]) {
      expect(figures).toMatchObject({ frames: 2 * FRAMES, rate: "50" });
      expect(faultsIn(figures)).toEqual([]);
      expect(figures.durationSeconds).toBeCloseTo(SECONDS, 1);
    }
  }, 60_000);

  test("a size in megabytes is not passed", async () => {
    const figures = await exportVersion(planOf({ mostMegabytes: 0.5 }), path("within.mp4"));
    expect(faultsIn(figures)).toEqual([]);
    expect(figures.bytes).toBeLessThanOrEqual(500_000);
    expect(figures.bytes).toBeGreaterThan(250_000);
    await expect(exportVersion(planOf({ mostMegabytes: 0.1 }), path("tiny.mp4"))).rejects.toThrow("too little");
  }, 60_000);

  test("a loudness is reached, below the limit of peaks", async () => {
    const figures = await exportVersion(planOf({ loudness: -20 }), path("loud.mp4"));
    expect(faultsIn(figures)).toEqual([]);
    expect(figures.loudness).toBeGreaterThan(-21);
    expect((await measureLoudness(path("loud.mp4")))!.peak).toBeLessThan(0);
  }, 60_000);

  test("sound stays in step with the picture in each format: a beep begins at each second", async () => {
    for (const format of ["mp4", "vp9", "prores"] as const) {
      const file = path(`format-${format}${outputFormat(format).extension}`);
      // From a second after the film's first: the beep is at the first frame, and again a second later.
      await exportVersion({ ...planOf({ format }), ranges: [{ start: 25, end: 75 }] }, file);
      const said = execFileSync(
        "ffmpeg",
        [
          ...[
            "-v",
            "error",
            "-i",
            file,
            "-af",
            "asetnsamples=480,astats=metadata=1:reset=1,ametadata=print:key=lavfi.astats.Overall.RMS_level:file=-",
          ],
          ...["-vn", "-f", "null", "-"],
        ],
        { encoding: "utf8" },
      );
      const levels = [...said.matchAll(/pts_time:([\d.]+)\n.*RMS_level=(-?[\d.]+|-inf)/g)];
      const loud = levels.filter(([, , level]) => Number(level) > -30).map(([, time]) => Number(time));
      const beginnings = loud.filter((time, i) => i === 0 || time - loud[i - 1]! > 0.3);
      expect(beginnings).toHaveLength(2);
      expect(Math.abs(beginnings[0]!)).toBeLessThan(0.04);
      expect(Math.abs(beginnings[1]! - 1)).toBeLessThan(0.04);
    }
  }, 60_000);
});
