import { execFileSync } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, expect, test } from "@jest/globals";
import type { HeardIn } from "~/core/composition/heard";
import { USUAL_PLAYBACK } from "~/core/composition/picture";
import type { FilmFile } from "./film-file";
import { reading } from "./film-tool.server";
import { mixedSound, tempo } from "./mixed-sound";
import { probeFilm } from "./probe.server";

const SAMPLE_RATE = 48_000;
const FILM_TONE = 400;
const CLIP_TONE = 1500;

let folder: string;
let film: FilmFile;
let clip: FilmFile;

async function made(name: string, seconds: number, sound: string): Promise<FilmFile> {
  const file = join(folder, name);
  const picture = ["-f", "lavfi", "-i", `color=black:s=64x64:r=25:d=${seconds}`];
  const output = ["-c:v", "libx264", "-pix_fmt", "yuv420p", "-c:a", "pcm_s16le", "-shortest", file];
  execFileSync("ffmpeg", ["-v", "error", "-y", ...picture, "-f", "lavfi", "-i", sound, ...output]);
  return { file, name, info: await probeFilm(file) };
}

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), "glad-pan-sound-"));
  film = await made("film.mov", 4, `sine=f=${FILM_TONE}:r=${SAMPLE_RATE}:d=4`);
  // A second of a tone, and one of silence.
  clip = await made("clip.mov", 2, `aevalsrc='if(lt(t,1),0.3*sin(2*PI*${CLIP_TONE}*t),0)':s=${SAMPLE_RATE}:d=2`);
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** How much of a tone is in a range of samples (Goertzel 1958), against its loudest. */
function heardOf(samples: Int16Array, tone: number, from: number, to: number): boolean {
  const part = samples.subarray(Math.round(from * SAMPLE_RATE), Math.round(to * SAMPLE_RATE));
  const step = 2 * Math.cos((2 * Math.PI * tone) / SAMPLE_RATE);
  let [before, last] = [0, 0];
  for (const sample of part) [before, last] = [last, sample + step * last - before];
  const power = before * before + last * last - step * before * last;
  return Math.sqrt(power) / part.length > 200;
}

function mix(heard: HeardIn[], files: ReadonlyMap<string, FilmFile>): Int16Array {
  const { input, filter } = mixedSound(film, heard, files, SAMPLE_RATE);
  const output = ["-map", "[sound]", "-ac", "1", "-f", "s16le", "pipe:1"];
  const args = ["-v", "error", ...reading(film.file), ...input, "-filter_complex", filter, ...output];
  const bytes = execFileSync("ffmpeg", args, { maxBuffer: 2 ** 26 });
  return new Int16Array(Uint8Array.from(bytes).buffer);
}

const picture = { id: "c".repeat(32), name: "clip.mov", width: 64, height: 64 };
const own = (playback: Partial<typeof USUAL_PLAYBACK>, played = 0) => ({
  picture,
  playback: { ...USUAL_PLAYBACK, ...playback },
  played,
});

test("each range has the sounds that are heard in it, in step", () => {
  const heard: HeardIn[] = [
    { range: { start: 0, end: 25 }, film: true, own: [] },
    { range: { start: 25, end: 50 }, film: false, own: [own({ loops: false })] },
    // What is left out lies between; the clip has gone on meanwhile, and is silent in its second half.
    { range: { start: 75, end: 100 }, film: true, own: [own({ loops: false }, 1)] },
  ];
  const samples = mix(heard, new Map([[picture.id, clip]]));
  expect(samples.length / SAMPLE_RATE).toBeCloseTo(3, 2);
  const told = (tone: number) => [0, 1, 2].map((second) => heardOf(samples, tone, second + 0.1, second + 0.9));
  expect(told(FILM_TONE)).toEqual([true, false, true]);
  expect(told(CLIP_TONE)).toEqual([false, true, false]);
});

test("a sound loops, from its in point and at its speed, and keeps its pitch", () => {
  const files = new Map([[picture.id, clip]]);
  const all = { start: 0, end: 100 };
  const looped = mix([{ range: all, film: false, own: [own({ loops: true })] }], files);
  expect([0, 1, 2, 3].map((s) => heardOf(looped, CLIP_TONE, s + 0.1, s + 0.9))).toEqual([true, false, true, false]);
  const slow = mix([{ range: all, film: false, own: [own({ loops: false, from: 12, speed: 0.25 })] }], files);
  // What is left of the tone, 0.52 s, lasts four times as long.
  expect([0.2, 1.2, 2.5].map((s) => heardOf(slow, CLIP_TONE, s, s + 0.6))).toEqual([true, true, false]);
});

test("what is not there is silent", () => {
  const samples = mix([{ range: { start: 0, end: 25 }, film: false, own: [own({})] }], new Map());
  expect([samples.length / SAMPLE_RATE, Math.max(...samples)]).toEqual([1, 0]);
});

test("a filter slows to half at the most, and several to what is wanted", () => {
  expect(tempo(1)).toEqual([]);
  expect(tempo(2)).toEqual(["atempo=2"]);
  expect(tempo(0.2)).toEqual(["atempo=0.5", "atempo=0.5", "atempo=0.8"]);
});
