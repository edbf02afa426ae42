import { execFileSync } from "node:child_process";
import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { USUAL_CAPTIONS } from "~/core/captions/caption-settings";
import { USUAL_LIMITS } from "~/core/checks/check-settings";
import { USUAL_OUTPUT } from "~/core/formats/output-settings";
import { Report } from "~/core/formats/report";
import { boxContains } from "~/core/geometry/box";
import { compareWithTruth, readTruth } from "../demo/truth";
import { gladPan } from "../tests/support/command-line";
import { EVERY_TEST } from "../tests/support/every-test";
import { writeFound } from "../tests/support/found-by-truth";
import { libraryWith } from "../tests/support/library";
import { measure } from "../tests/support/measure";

let folder: string;
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), "glad-pan-convert-"));
  writeFound("two-shots", path("found.json"));
});
afterAll(() => rmSync(folder, { recursive: true }));

const path = (name: string) => join(folder, name);
const clip = (name: string) => `demo/clips/${name}.mp4`;
const convert = (...args: string[]) => gladPan("convert", ...args);
/** What takes long is done once: the film was looked through before. */
const convertFound = (...args: string[]) => convert(clip("two-shots"), "--analysis", path("found.json"), ...args);
const reportIn = (name: string) => Report.parse(JSON.parse(readFileSync(path(name), "utf8")));
const leftovers = () => readdirSync(folder).filter((name) => name.includes(".part."));

test("writes a checked file and a report that holds against the truth", async () => {
  const args = ["--size", "540x960", "--out", path("a.mp4"), "--report", path("a.json")];
  const { status, stderr } = await convert(clip("two-shots"), ...args);
  expect(stderr).toContain("540 × 960, 99 frames at 30 per second, with sound, 2 shots; checked.");
  expect(status).toBe(0);
  expect(measure(path("a.mp4"))).toEqual({ size: [540, 960], pixels: "1:1", frames: 99, rate: "30/1", sounds: 1 });
  const report = reportIn("a.json");
  expect(report.windows).toHaveLength(99);
  const result = compareWithTruth(report, readTruth("demo/clips/two-shots.truth.json"));
  expect(result).toMatchObject({ cuts: 1, cutsFound: 1, falseCuts: 0 });
  expect(result.shots.map((shot) => shot.subject)).toEqual(["nela", "teo"]);
  for (const shot of result.shots) expect(shot.faceInside).toBeGreaterThanOrEqual(0.97);
  const picture = { x: 0, y: 0, width: 1280, height: 720 };
  for (const [x, y, height] of report.windows) {
    const width = (height * 540) / 960;
    expect(boxContains(picture, { x: x - width / 2, y: y - height / 2, width, height }, 1e-3)).toBe(true);
  }
});

test("follows a mark, in its shot, over a range of the film", async () => {
  const truth = readTruth("demo/clips/two-shots.truth.json");
  const kite = truth.tracks.find((track) => track.id === "running-kite")!;
  const box = kite.boxes[65 - kite.start]!;
  const { status } = await convert(
    ...[clip("two-shots"), "--size", "90x160", "--out", path("b.mp4"), "--report", path("b.json")],
    ...["--from", "45", "--to", "85", "--mark", `65:${box.join(",")}`, "--movement", "chase"],
  );
  expect(status).toBe(0);
  const report = reportIn("b.json");
  expect(report.shots).toHaveLength(1);
  expect(report.shots[0]).toMatchObject({ start: 45, end: 85, movement: "chase", subject: "mark-1" });
  expect(report.tracks.find((track) => track.id === "mark-1")!.kind).toBe("mark");
  expect(measure(path("b.mp4"))).toMatchObject({ frames: 40, sounds: 1 });
});

test("leaves ranges out: the file is as much shorter, and the window may jump where one was", async () => {
  const { status, stderr } = await convertFound(
    ...["--size", "90x160", "--out", path("left-out.mp4"), "--report", path("left-out.json")],
    ...["--to", "60", "--leave-out", "20-35", "--leave-out", "30-40"],
  );
  expect(stderr).toContain("40 frames");
  expect(status).toBe(0);
  expect(measure(path("left-out.mp4"))).toMatchObject({ frames: 40, sounds: 1 });
  const report = reportIn("left-out.json");
  expect(report.kept).toEqual([
    [0, 20],
    [40, 60],
  ]);
  expect(report.shots[0]!.keys.map(({ frame }) => frame)).toEqual(expect.arrayContaining([0, 20, 40]));
});

test("takes captions along: on the picture, beside the file and as a track, without what is left out", async () => {
  const srt = "1\n00:00:00,500 --> 00:00:01,500\nUp there\n\n2\n00:00:02,000 --> 00:00:01,000\nback\n";
  writeFileSync(path("talk.srt"), srt);
  const { status, stderr } = await convertFound(
    ...["--size", "180x320", "--out", path("said.mp4"), "--captions", path("talk.srt"), "--burn", "--sidecar"],
    ...["--track", "--to", "60", "--leave-out", "20-30"],
  );
  expect([status, stderr]).toEqual([
    0,
    expect.stringContaining("talk.srt, line 6: This caption ends before it starts"),
  ]);
  // From frame 15 to 45, of which ten are left out.
  const said = "1\n00:00:00,500 --> 00:00:01,167\nUp there\n";
  expect(readFileSync(path("said.srt"), "utf8")).toBe(said);
  const track = execFileSync("ffmpeg", ["-v", "error", "-i", path("said.mp4"), "-map", "0:s:0", "-f", "srt", "-"]);
  expect(track.toString().trim()).toBe(said.trim());
  /** How much of the foot of a frame is nearly white, as letters are. */
  const white = (frame: number) => {
    const filter = `select=eq(n\\,${frame}),crop=iw:ih/5:0:ih*4/5,format=gray`;
    const bytes = execFileSync("ffmpeg", [
      ...["-v", "error", "-i", path("said.mp4"), "-vf", filter, "-frames:v", "1", "-f", "rawvideo", "-"],
    ]);
    return bytes.filter((value) => value > 235).length / bytes.length;
  };
  expect(white(20)).toBeGreaterThan(white(5) + 0.005);

  writeFileSync(path("none.srt"), "nothing");
  const refused = await convertFound("--size", "360x640", "--out", path("no.mp4"), "--captions", path("none.srt"));
  expect(refused).toMatchObject({ status: 2, stderr: expect.stringContaining("none.srt: no captions found") });
  expect(existsSync(path("no.mp4"))).toBe(false);
});

test("makes the versions of a preset, as the style says where no option says otherwise", async () => {
  const BARE = {
    layers: [],
    safeArea: null,
    captions: USUAL_CAPTIONS,
    checkLimits: USUAL_LIMITS,
    reviewedFlags: [],
    output: USUAL_OUTPUT,
  };
  process.env.GLAD_PAN_DATA = path("library");
  libraryWith(path("library"), {
    id: "s",
    name: "Festival clips",
    versions: [
      { name: "Reel", width: 90, height: 160, limitSeconds: 1, usual: { movement: "still", calm: 80 }, ...BARE },
      { name: "Feed", width: 96, height: 96, limitSeconds: null, usual: { movement: "chase" }, ...BARE },
    ],
  });
  const args = ["--out", path("styled.mp4"), "--report", path("styled.json"), "--to", "40"];
  const { stderr, status } = await convertFound("--preset", "festival CLIPS", ...args);
  expect(stderr).toContain("check failed: it lasts 1.3 s, over its limit of 1 s");
  expect(status).toBe(3);
  expect(measure(path("styled 90x160.mp4"))).toMatchObject({ size: [90, 160], frames: 40 });
  expect(measure(path("styled 96x96.mp4"))).toMatchObject({ size: [96, 96], frames: 40 });
  const movements = ["90x160", "96x96"].map((size) => reportIn(`styled ${size}.json`).shots[0]!.movement);
  expect(movements).toEqual(["still", "chase"]);
  expect((await convertFound("--preset", "Nobody's", "--out", path("x.mp4"))).stderr).toContain(
    'there are "Festival clips"',
  );
  const both = await convertFound("--preset", "Festival clips", "--size", "360x640", "--out", path("x.mp4"));
  expect(both.status).toBe(2);
  delete process.env.GLAD_PAN_DATA;
});

test("an upright film becomes square, with the window moving up and down; no sound stays no sound", async () => {
  const args = ["--size", "240x240", "--out", path("c.mp4"), "--report", path("c.json")];
  expect((await convert(clip("upright-25"), ...args)).status).toBe(0);
  expect(measure(path("c.mp4"))).toEqual({ size: [240, 240], pixels: "1:1", frames: 50, rate: "25/1", sounds: 0 });
  const report = reportIn("c.json");
  const shot = compareWithTruth(report, readTruth("demo/clips/upright-25.truth.json")).shots[0]!;
  expect(shot.subject).toBe("nela");
  expect(shot.faceInside).toBe(1);
  for (const [x] of report.windows) expect(x).toBe(360);
});

// Only this finds a conversion that reads the picture before it is turned; how it is turned is tried in media.test.ts.
(EVERY_TEST ? test : test.skip)("a film with rotation metadata is converted as it is displayed", async () => {
  const rotated = path("rotated.mp4");
  const turn = ["-t", "0.5", "-c", "copy", "-metadata:s:v:0", "rotate=90"];
  execFileSync("ffmpeg", ["-y", "-v", "error", "-i", clip("runner-60"), ...turn, rotated]);
  const args = ["--size", "180x226", "--out", path("d.mp4"), "--report", path("d.json")];
  expect((await convert(rotated, ...args)).status).toBe(0);
  const report = reportIn("d.json");
  expect(report.source).toMatchObject({ width: 720, height: 1280, rate: [60, 1] });
  expect(measure(path("d.mp4"))).toMatchObject({ size: [180, 226], rate: "60/1", frames: report.source.frames });
});

test("refuses what is no film in one line, exits with 1, and leaves nothing", async () => {
  writeFileSync(path("text.mp4"), "This is not a film.");
  const { status, stderr } = await convert(path("text.mp4"), "--size", "360x640", "--out", path("e.mp4"));
  expect(status).toBe(1);
  expect(stderr.trim().split("\n")).toHaveLength(1);
  expect(stderr).toContain("text.mp4: this is not a film");
  expect(existsSync(path("e.mp4"))).toBe(false);
  expect(leftovers()).toEqual([]);
});

test.each([
  [["--size", "361x640", "--out", "x.mp4"], "must be even"],
  [["--size", "360x640", "--out", "x.mp4", "--movement", "wild"], "still, glide, chase"],
  [["--size", "360x640", "--out", "x.mp4", "--mark", "5:1,2"], "FRAME:X,Y,WIDTH,HEIGHT"],
  [["--size", "360x640", "--out", "x.mp4", "--from", "50", "--to", "40"], "--from must come before --to"],
  [["--size", "360x640", "--out", "x.mp4", "--to", "500"], "beyond its end"],
  [["--size", "360x640", "--out", "x.mp4", "--leave-out", "40"], "written A-B"],
  [["--size", "360x640", "--out", "x.mp4", "--leave-out", "90-120"], "beyond its end"],
  [["--size", "360x640", "--out", "x.mp4", "--leave-out", "0-99"], "leaves nothing"],
  [["--size", "360x640", "--out", "x.avi"], "must end in .mp4"],
  [["--out", "x.mp4"], "--size"],
])("wrong usage %j exits with 2 and says why", async (args, reason) => {
  const { status, stderr } = await convert(clip("two-shots"), ...args);
  expect(stderr).toContain(reason);
  expect(status).toBe(2);
});
