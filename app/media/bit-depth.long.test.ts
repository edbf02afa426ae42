/** Ten bits a sample, in each codec that has them: only here is a loss of the two lowest seen, which no eye and no other test finds. */
import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { execFileSync } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { fill } from "~/core/composition/composition";
import { type FormatId, outputFormat } from "~/core/formats/output-formats";
import { type OutputSettings, USUAL_OUTPUT } from "~/core/formats/output-settings";
import { conform } from "./conform.server";
import type { FilmFile } from "./film-file";
import { bitDepthOf, probeFilm } from "./probe.server";
import { renderFilm } from "./render/render.server";
import { verifyFile } from "./verify.server";

const PICTURE = { width: 640, height: 360 };
const TARGET = { width: 270, height: 480 };
const FRAMES = 8;
let folder = "";
let film: FilmFile;
const path = (name: string) => join(folder, name);

/** A ramp from left to right of 30 levels of 8 bits, which are 120 of 10. */
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), "glad-pan-depth-"));
  const ramp = `nullsrc=s=640x360:r=25,format=yuv420p10le,geq=lum='400+120*(X+0.5)/W':cb=512:cr=512`;
  execFileSync("ffmpeg", [
    ...["-v", "error", "-f", "lavfi", "-i", ramp, "-frames:v", String(FRAMES), "-c:v", "ffv1"],
    ...["-colorspace", "bt709", "-color_range", "tv", path("ramp.mkv")],
  ]);
  film = { file: path("ramp.mkv"), name: "ramp.mkv", info: await probeFilm(path("ramp.mkv")) };
}, 60_000);
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** Levels of 10 bits along a row in the middle of a file's second frame: each the mean of so many rows. */
function levelsOf(file: string, { width, height } = TARGET, count = 40): number[] {
  const picture = [
    "-vf",
    "select=eq(n\\,1),format=yuv422p10le,extractplanes=y",
    "-frames:v",
    "1",
    "-f",
    "rawvideo",
    "-",
  ];
  const bytes = execFileSync("ffmpeg", ["-v", "error", "-i", file, ...picture], { maxBuffer: 1e8 });
  const at = (x: number, y: number) => bytes.readUInt16LE(2 * (y * width + x));
  const rows = Array.from({ length: count }, (_, i) => height / 2 + i);
  return Array.from({ length: width }, (_, x) => rows.reduce((sum, y) => sum + at(x, y), 0) / rows.length);
}

/** The mean distance of a row from the ramp that the window shows, in levels of 10 bits. */
function errorOf(levels: readonly number[]): number {
  const { width } = TARGET;
  const window = (PICTURE.height * TARGET.width) / TARGET.height;
  const left = PICTURE.width / 2 - window / 2;
  const wanted = (x: number) => 400 + (120 * (left + ((x + 0.5) / width) * window)) / PICTURE.width;
  return levels.reduce((sum, level, x) => sum + Math.abs(level - wanted(x)), 0) / levels.length;
}

async function rendered(format: FormatId, change: Partial<OutputSettings> = {}): Promise<string> {
  const { extension } = outputFormat(format);
  const file = path(`${format}-${change.depth ?? "film"}${extension}`);
  const ranges = [{ start: 0, end: FRAMES }];
  const shown = () => fill({ x: PICTURE.width / 2, y: 180, height: 360 }, TARGET);
  const output: OutputSettings = { ...USUAL_OUTPUT, format, quality: "best", ...change };
  await renderFilm({ ...film, target: TARGET, ranges, shown, output }, file);
  return file;
}

test("how many bits a film has is found in its file", () => {
  expect(film.info.bitDepth).toBe(10);
  expect(["yuv420p", "p010le", "yuv422p12le", "gray", undefined].map(bitDepthOf)).toEqual([8, 10, 12, 8, 8]);
});

test.each(["hevc", "vp9", "av1", "prores", "dnxhr"] as const)(
  "%s has the levels of a film of 10 bits",
  async (format) => {
    expect(errorOf(levelsOf(await rendered(format)))).toBeLessThan(0.8);
  },
  60_000,
);

test("with 8 bits, asked for or all there is, every fourth level is left", async () => {
  for (const file of [await rendered("hevc", { depth: 8, quality: 0 }), await rendered("mp4", { quality: 0 })]) {
    expect(levelsOf(file, TARGET, 1).filter((level) => level % 4 !== 0)).toEqual([]);
  }
  const fine = levelsOf(await rendered("hevc", { depth: 10, quality: 0 }), TARGET, 1);
  expect(fine.filter((level) => level % 4 !== 0).length).toBeGreaterThan(TARGET.width / 2);
}, 60_000);

test("a file with fewer bits than were wanted is told of", async () => {
  const expected = { size: TARGET, rate: film.info.rate, frames: FRAMES, sound: false, depth: 10 } as const;
  const [ten, eight] = [await rendered("hevc"), await rendered("hevc", { depth: 8 })];
  expect((await verifyFile(ten, expected)).faults).toEqual([]);
  expect((await verifyFile(eight, expected)).faults).toEqual(["it is 8-bit, not 10-bit"]);
}, 60_000);

test("frames between two are mixed with all their bits", async () => {
  const file = await rendered("prores", { rate: { num: 50, den: 1 }, retiming: "blend" });
  expect(errorOf(levelsOf(file))).toBeLessThan(0.8);
}, 60_000);

test("a clip of 10 bits keeps them in a film of several", async () => {
  const { rate } = film.info;
  const area = { x: 0, y: 0, ...PICTURE };
  await conform(film, { picture: PICTURE, rate, frames: FRAMES, area, depth: 10 }, path("part.mov"));
  expect((await probeFilm(path("part.mov"))).bitDepth).toBe(10);
  const levels = levelsOf(path("part.mov"), PICTURE);
  expect(new Set(levels.map(Math.round)).size).toBeGreaterThan(100);
}, 60_000);
