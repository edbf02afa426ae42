import { execFileSync } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { boxIou } from "~/core/geometry/box";
import { boxAt, type Track } from "~/core/subjects/tracking/track";
import type { FilmFile } from "~/media/film-file";
import { probeFilm } from "~/media/probe.server";
import { leadOn } from "./lead-on.server";

const FRAMES = 50;
const SHOT = { start: 0, end: FRAMES };
let folder: string;
let film: FilmFile;

/** A patterned thing that goes to the right over a still ground, and is covered from frame 40 on. */
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), "glad-pan-lead-on-"));
  const file = join(folder, "thing.mp4");
  const graph = [
    "color=c=0x607060:s=640x360:r=25:d=2,noise=alls=12:all_seed=7[ground]",
    "testsrc=s=90x90:r=25:d=2[thing]",
    "color=c=0x202020:s=640x360:r=25:d=2[cover]",
    "[ground][thing]overlay=x='60+5*n':y=120[film]",
    "[film][cover]overlay=enable='gte(n,40)',format=yuv420p[out]",
  ].join(";");
  execFileSync("ffmpeg", [
    "-v",
    "error",
    "-filter_complex",
    graph,
    "-map",
    "[out]",
    "-c:v",
    "libx264",
    "-crf",
    "20",
    file,
  ]);
  film = { file, name: "thing", info: await probeFilm(file) };
});
afterAll(() => rmSync(folder, { recursive: true }));

const truth = (frame: number) => ({ x: 60 + 5 * frame, y: 120, width: 90, height: 90 });
const seen = (from: number, to: number): Track => ({
  id: "thing",
  kind: "object",
  start: from,
  boxes: Array.from({ length: to - from }, (_, i) => truth(from + i)),
  confidence: 0.7,
});

test("a track is led on to where the thing was not detected, backwards and forwards, while it is to be seen", async () => {
  const track = await leadOn(film, seen(18, 26), SHOT);
  for (const frame of [0, 5, 12, 20, 30, 38]) {
    expect(boxIou(boxAt(track, frame)!, truth(frame))).toBeGreaterThan(0.6);
  }
  expect(boxAt(track, FRAMES - 1)).toBeNull();
});

test("a gap between two sightings is filled, and a whole track stays as it is", async () => {
  const [first, last] = [seen(0, 10), seen(25, 40)];
  const boxes = Array.from({ length: 40 }, (_, frame) => boxAt(first, frame) ?? boxAt(last, frame));
  const track = await leadOn(film, { ...first, boxes }, SHOT);
  expect(boxIou(boxAt(track, 17)!, truth(17))).toBeGreaterThan(0.6);
  const whole = seen(0, FRAMES);
  expect(await leadOn(film, whole, SHOT)).toBe(whole);
});
