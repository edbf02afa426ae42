import { execFileSync } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { type Backdrop, USUAL_BACKDROP } from "~/core/composition/backdrop";
import { compose, type Composition } from "~/core/composition/composition";
import { PLAIN_EDGE } from "~/core/composition/edge";
import { layOut, WHOLE } from "~/core/composition/layout";
import { groundOf } from "~/core/composition/layers/draw-layer";
import { newBar } from "~/core/composition/layers/layer";
import type { FilmFile } from "~/media/film-file";
import { probeFilm } from "~/media/probe.server";
import { barFaults } from "./check-bars.server";

const TARGET = { width: 180, height: 320 };
const PICTURE = { width: 320, height: 180 };
let folder: string;
let film: FilmFile;

/** Two seconds of a test card before what is around it. */
function made(name: string, size: { width: number; height: number }, filter: string): string {
  const file = join(folder, name);
  const card = `testsrc2=s=320x180:r=25:d=2,scale=${size.width}:-2,setsar=1,format=yuv420p,${filter}`;
  const tags = ["-colorspace", "bt709", "-color_range", "tv", "-pix_fmt", "yuv420p"];
  execFileSync("ffmpeg", ["-v", "error", "-y", "-f", "lavfi", "-i", card, ...tags, file]);
  return file;
}
/** The card whole in a frame of a colour. */
const before = (name: string, colour: string, more = "") => {
  const pad = `pad=180:320:0:110:black,drawbox=0:0:180:110:${colour}:fill,drawbox=0:212:180:108:${colour}:fill`;
  return made(name, TARGET, `${pad}${more}`);
};

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), "glad-pan-bars-"));
  const file = made("film.mp4", PICTURE, "null");
  film = { file, name: "film.mp4", info: await probeFilm(file) };
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const whole = (backdrop: Backdrop): Composition => {
  const laidOut = layOut({ layout: WHOLE, backdrop, edge: PLAIN_EDGE }, { x: 0, y: 0, ...PICTURE }, TARGET);
  return compose([{ x: 160, y: 90, height: 180 }], laidOut, TARGET);
};
const FRAMES = Array.from({ length: 50 }, (_, frame) => ({ frame }));
const faults = (file: string, shown: Composition) =>
  barFaults(file, { ...film, target: TARGET, shown: () => shown }, FRAMES);
const BLACK: Backdrop = { kind: "colour", colour: "#000000" };

test("a black backdrop that was asked for is none, and another one that has come out black is told", async () => {
  const file = before("black.mp4", "black");
  expect(await faults(file, whole(BLACK))).toEqual([]);
  expect(await faults(file, whole({ kind: "colour", colour: "#a03050" }))).toEqual([
    "a backdrop does not have the colour that was asked for",
  ]);
  expect(await faults(file, whole({ kind: "gradient", top: "#000000", foot: "#a03050" }))).toHaveLength(1);
  expect(await faults(file, whole(USUAL_BACKDROP))).toEqual(["there are black bars at the edges"]);
});

test("bars inside of the film's own pane are told, whatever is behind it", async () => {
  const inside = before("inside.mp4", "0x203040", ",drawbox=0:110:24:102:black:fill");
  expect(await faults(inside, whole({ kind: "colour", colour: "#203040" }))).toEqual([
    "there are black bars at the edges",
  ]);
});

test("a shot that is black at its edges in the film is no fault before a backdrop either", async () => {
  const title = "drawbox=0:0:iw:ih:black:fill,drawbox=120:70:80:40:white:fill";
  const file = made("title.mp4", PICTURE, title);
  const source = { file, name: "title.mp4", info: await probeFilm(file) };
  const shown = whole({ kind: "colour", colour: "#203040" });
  const out = made("out.mp4", PICTURE, `${title},scale=180:-2,pad=180:320:0:110:0x203040,setsar=1`);
  const checked = { ...source, target: TARGET, shown: () => shown };
  expect(await barFaults(out, checked, FRAMES)).toEqual([]);
});

test("a black bar that the editor has laid over the frame is not taken for one", async () => {
  const file = made("bar.mp4", PICTURE, "scale=570:320,crop=180:320,drawbox=0:0:180:40:black:fill");
  const laidOut = layOut(
    { layout: { kind: "fill" }, backdrop: BLACK, edge: PLAIN_EDGE },
    { x: 0, y: 0, ...PICTURE },
    TARGET,
  );
  const shown = compose([{ x: 160, y: 90, height: 180 }], laidOut, TARGET);
  expect(await faults(file, shown)).toEqual(["there are black bars at the edges"]);
  const at = [{ layer: { ...newBar("bar"), width: 1 }, opacity: 1, shift: { x: 0, y: 0 } }];
  expect(await faults(file, { ...shown, layers: { ground: groundOf({ ...TARGET, safeArea: null }), at } })).toEqual([]);
});
