// Only here does a hand that is drawn pass all of the analysis: a part of it that is right by itself may not fit the next.
import { clamped } from "~/core/numbers/clamped";
import { execFileSync } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { boxIou } from "~/core/geometry/box";
import { chooseSubject } from "~/core/subjects/choosing/rank";
import { boxAt } from "~/core/subjects/tracking/track";
import { probeFilm } from "~/media/probe.server";
import { analyseAtOnce } from "./analyse-film.server";

let folder: string;
let file: string;

/** Frames in which the hand lifts the thing. */
const [LIFTED, DOWN] = [30, 55];

/** Before a spotted wall with a yellow patch, a hand that comes in from the right lifts a blue thing, and holds it still. */
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), "glad-pan-in-a-hand-"));
  file = join(folder, "hand.mp4");
  const y = (below: number) => `y='${below}-4*clip(n-${LIFTED}\\,0\\,${DOWN - LIFTED})'`;
  const length = "r=25:d=4";
  const graph = [
    `color=c=0x707070:s=640x360:${length},noise=alls=100:all_seed=7,gblur=sigma=4,eq=contrast=3[wall]`,
    `color=c=0xe0c020:s=90x90:${length}[patch]`,
    `color=c=0x2040d0:s=70x90:${length}[thing]`,
    `color=c=0xc89070:s=400x34:${length}[hand]`,
    `color=c=0x306040:s=200x40:${length}[sleeve]`,
    "[wall][patch]overlay=x=60:y=60[a]",
    `[a][hand]overlay=x=290:${y(248)}[b]`,
    `[b][sleeve]overlay=x=460:${y(245)}[c]`,
    `[c][thing]overlay=x=230:${y(220)},format=yuv420p[out]`,
  ];
  const encoding = ["-map", "[out]", "-c:v", "libx264", "-crf", "20"];
  execFileSync("ffmpeg", ["-v", "error", "-filter_complex", graph.join(";"), ...encoding, file]);
});
afterAll(() => rmSync(folder, { recursive: true }));

const truth = (frame: number) => {
  const lifted = 4 * clamped(frame - LIFTED, 0, DOWN - LIFTED);
  return { x: 230, y: 220 - lifted, width: 70, height: 90 };
};

test("a thing that a hand lifts is followed without the arm, from before it is lifted to when it is held still", async () => {
  const info = await probeFilm(file);
  const { shots } = await analyseAtOnce({ file, name: "hand", info });
  const { range, tracks } = shots[0]!;
  const { track } = chooseSubject(tracks, range, info.picture)!;
  expect(track.held).toBe(true);
  for (const frame of [0, 20, 42, 60, 99]) expect(boxIou(boxAt(track, frame)!, truth(frame))).toBeGreaterThan(0.45);
});
