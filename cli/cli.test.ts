import { USUAL_CAPTIONS } from "~/core/captions/caption-settings";
import { execFileSync, spawnSync } from "node:child_process";
import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { USUAL_OUTPUT } from "~/core/formats/output-settings";
import { USUAL_LIMITS } from "~/core/checks/check-settings";
import { readCutsCsv } from "~/core/formats/cuts-csv";
import { clockOf } from "~/core/time/timecode";
import { readEdl } from "~/core/formats/edl";
import { readOtio } from "~/core/formats/otio";
import { AnalysisReport, Report } from "~/core/formats/report";
import { boxContains } from "~/core/geometry/box";
import { libraryWith } from "../tests/support/library";
import { compareWithTruth, readTruth } from "../demo/truth";
import { measure } from "../tests/support/measure";

let folder: string;
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), "glad-pan-cli-"));
});
afterAll(() => rmSync(folder, { recursive: true }));

const path = (name: string) => join(folder, name);
const clip = (name: string) => `demo/clips/${name}.mp4`;
const convert = (...args: string[]) =>
  spawnSync("node", ["--import", "tsx", "cli/main.ts", "convert", ...args], { encoding: "utf8" });
const leftovers = () => readdirSync(folder).filter((name) => name.includes(".part."));

describe("convert", () => {
  test("writes a checked file and a report that holds against the truth", () => {
    const { status, stderr } = convert(
      clip("two-shots"),
      "--size",
      "540x960",
      "--out",
      path("a.mp4"),
      "--report",
      path("a.json"),
    );
    expect(stderr).toContain("540 × 960, 99 frames at 30 a second, with sound, 2 shots; checked.");
    expect(status).toBe(0);
    expect(measure(path("a.mp4"))).toEqual({ size: [540, 960], pixels: "1:1", frames: 99, rate: "30/1", sounds: 1 });
    const report = Report.parse(JSON.parse(readFileSync(path("a.json"), "utf8")));
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

  test("follows a mark, in its shot, over a stretch of the film", () => {
    const args = [
      "--size",
      "360x640",
      "--out",
      path("b.mp4"),
      "--report",
      path("b.json"),
      "--from",
      "45",
      "--to",
      "85",
    ];
    const truth = readTruth("demo/clips/two-shots.truth.json");
    const kite = truth.tracks.find((track) => track.id === "running-kite")!;
    const box = kite.boxes[65 - kite.start]!;
    const { status } = convert(clip("two-shots"), ...args, "--mark", `65:${box.join(",")}`, "--manner", "chase");
    expect(status).toBe(0);
    const report = Report.parse(JSON.parse(readFileSync(path("b.json"), "utf8")));
    expect(report.shots).toHaveLength(1);
    expect(report.shots[0]).toMatchObject({ start: 45, end: 85, manner: "chase", subject: "mark-1" });
    expect(report.tracks.find((track) => track.id === "mark-1")!.kind).toBe("mark");
    expect(measure(path("b.mp4"))).toMatchObject({ frames: 40, sounds: 1 });
  });

  test("drops stretches: the file is as much shorter, and the window may jump where one was", () => {
    const { status, stderr } = convert(
      ...[clip("two-shots"), "--size", "360x640", "--out", path("drop.mp4"), "--report", path("drop.json")],
      ...["--to", "60", "--drop", "20-35", "--drop", "30-40"],
    );
    expect(stderr).toContain("40 frames");
    expect(status).toBe(0);
    expect(measure(path("drop.mp4"))).toMatchObject({ frames: 40, sounds: 1 });
    const report = Report.parse(JSON.parse(readFileSync(path("drop.json"), "utf8")));
    expect(report.kept).toEqual([
      [0, 20],
      [40, 60],
    ]);
    expect(report.windows).toHaveLength(60);
    expect(report.shots[0]!.keys.map(({ frame }) => frame)).toEqual(expect.arrayContaining([0, 20, 40]));
  });

  test("takes captions along: on the picture, beside the file and as a track, without what is dropped", () => {
    const srt = "1\n00:00:00,500 --> 00:00:01,500\nUp there\n\n2\n00:00:02,000 --> 00:00:01,000\nback\n";
    writeFileSync(path("talk.srt"), srt);
    const args = ["--size", "360x640", "--out", path("said.mp4"), "--captions", path("talk.srt")];
    const range = ["--to", "60", "--drop", "20-30"];
    const { status, stderr } = convert(clip("two-shots"), ...args, ...range, "--burn", "--sidecar", "--track");
    expect([status, stderr]).toEqual([
      0,
      expect.stringContaining("talk.srt, line 6: This caption ends before it starts"),
    ]);
    // From frame 15 to 45, of which ten are dropped.
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
    const refused = convert(
      clip("two-shots"),
      "--size",
      "360x640",
      "--out",
      path("no.mp4"),
      "--captions",
      path("none.srt"),
    );
    expect([refused.status, refused.stderr]).toEqual([2, expect.stringContaining("none.srt: no captions found")]);
    expect(existsSync(path("no.mp4"))).toBe(false);
  });

  test("makes the versions of a house style, as the style says where no option says otherwise", () => {
    const data = path("library");
    const BARE = {
      layers: [],
      safeArea: null,
      captions: USUAL_CAPTIONS,
      checkLimits: USUAL_LIMITS,
      seenLooks: [],
      output: USUAL_OUTPUT,
    };
    libraryWith(data, {
      id: "s",
      name: "Festival clips",
      versions: [
        { name: "Reel", width: 360, height: 640, limitSeconds: 1, usual: { manner: "still", calm: 80 }, ...BARE },
        { name: "Feed", width: 400, height: 400, limitSeconds: null, usual: { manner: "chase" }, ...BARE },
      ],
    });
    const styled = (...args: string[]) =>
      spawnSync("node", ["--import", "tsx", "cli/main.ts", "convert", clip("two-shots"), ...args], {
        encoding: "utf8",
        env: { ...process.env, GLAD_PAN_DATA: data },
      });
    const args = ["--out", path("styled.mp4"), "--report", path("styled.json"), "--to", "40"];
    const { stderr, status } = styled("--style", "festival CLIPS", ...args);
    expect(stderr).toContain("it needs a look: it lasts 1.3 s, over its limit of 1 s");
    expect(status).toBe(3);
    expect(measure(path("styled 360x640.mp4"))).toMatchObject({ size: [360, 640], frames: 40 });
    expect(measure(path("styled 400x400.mp4"))).toMatchObject({ size: [400, 400], frames: 40 });
    const manners = ["360x640", "400x400"].map(
      (size) => Report.parse(JSON.parse(readFileSync(path(`styled ${size}.json`), "utf8"))).shots[0]!.manner,
    );
    expect(manners).toEqual(["still", "chase"]);
    expect(styled("--style", "Nobody's", "--out", path("x.mp4")).stderr).toContain('there are "Festival clips"');
    expect(styled("--style", "Festival clips", "--size", "360x640", "--out", path("x.mp4")).status).toBe(2);
  });

  test("an upright film becomes square, with the window moving up and down; no sound stays no sound", () => {
    const { status } = convert(
      clip("upright-25"),
      "--size",
      "480x480",
      "--out",
      path("c.mp4"),
      "--report",
      path("c.json"),
    );
    expect(status).toBe(0);
    expect(measure(path("c.mp4"))).toEqual({ size: [480, 480], pixels: "1:1", frames: 50, rate: "25/1", sounds: 0 });
    const report = Report.parse(JSON.parse(readFileSync(path("c.json"), "utf8")));
    const shot = compareWithTruth(report, readTruth("demo/clips/upright-25.truth.json")).shots[0]!;
    expect(shot.subject).toBe("nela");
    expect(shot.faceInside).toBe(1);
    for (const [x] of report.windows) expect(x).toBe(360);
  });

  test("a film with rotation metadata is converted as it is displayed", () => {
    const rotated = path("rotated.mp4");
    execFileSync("ffmpeg", [
      "-y",
      "-v",
      "error",
      "-i",
      clip("runner-60"),
      "-t",
      "0.5",
      "-c",
      "copy",
      "-metadata:s:v:0",
      "rotate=90",
      rotated,
    ]);
    const { status } = convert(rotated, "--size", "360x450", "--out", path("d.mp4"), "--report", path("d.json"));
    expect(status).toBe(0);
    const report = Report.parse(JSON.parse(readFileSync(path("d.json"), "utf8")));
    expect(report.source).toMatchObject({ width: 720, height: 1280, rate: [60, 1] });
    expect(measure(path("d.mp4"))).toMatchObject({ size: [360, 450], rate: "60/1", frames: report.source.frames });
  });

  test("refuses what is no film in one line, exits with 1, and leaves nothing", () => {
    writeFileSync(path("text.mp4"), "This is not a film.");
    const { status, stderr } = convert(path("text.mp4"), "--size", "360x640", "--out", path("e.mp4"));
    expect(status).toBe(1);
    expect(stderr.trim().split("\n")).toHaveLength(1);
    expect(stderr).toContain("text.mp4: this is not a film");
    expect(existsSync(path("e.mp4"))).toBe(false);
    expect(leftovers()).toEqual([]);
  });

  test.each([
    [["--size", "361x640", "--out", "x.mp4"], "must be even"],
    [["--size", "360x640", "--out", "x.mp4", "--manner", "wild"], "still, glide, chase"],
    [["--size", "360x640", "--out", "x.mp4", "--mark", "5:1,2"], "FRAME:X,Y,WIDTH,HEIGHT"],
    [["--size", "360x640", "--out", "x.mp4", "--from", "50", "--to", "40"], "--from must come before --to"],
    [["--size", "360x640", "--out", "x.mp4", "--to", "500"], "beyond its end"],
    [["--size", "360x640", "--out", "x.mp4", "--drop", "40"], "written A-B"],
    [["--size", "360x640", "--out", "x.mp4", "--drop", "90-120"], "beyond its end"],
    [["--size", "360x640", "--out", "x.mp4", "--drop", "0-99"], "leaves nothing"],
    [["--size", "360x640", "--out", "x.avi"], "must end in .mp4"],
    [["--out", "x.mp4"], "--size"],
  ])("wrong usage %j exits with 2 and says why", (args, reason) => {
    const { status, stderr } = convert(clip("two-shots"), ...args);
    expect(stderr).toContain(reason);
    expect(status).toBe(2);
  });
});

describe("solve", () => {
  const solve = (...args: string[]) =>
    spawnSync("node", ["--import", "tsx", "cli/main.ts", "solve", ...args], { encoding: "utf8" });

  test("lays a path of another shape and manner from what was found before", () => {
    const { status, stderr } = solve(
      path("c.json"),
      "--size",
      "720x1280",
      "--manner",
      "still",
      "--zoom",
      "fixed:1.5",
      "--report",
      path("solved.json"),
    );
    expect(stderr).toContain("solved.json: 1 shot, 1 key.");
    expect(status).toBe(0);
    const [before, after] = ["c.json", "solved.json"].map((file) =>
      Report.parse(JSON.parse(readFileSync(path(file), "utf8"))),
    );
    expect(after!.target).toEqual({ width: 720, height: 1280 });
    expect(after!.tracks).toEqual(before!.tracks);
    expect(new Set(after!.windows.map(String)).size).toBe(1);
    expect(after!.windows[0]![2]).toBeCloseTo(1280 / 1.5, 1);
  });

  test("refuses what is no report", () => {
    writeFileSync(path("no-report.json"), '{"format": "other"}');
    const { status, stderr } = solve(path("no-report.json"), "--size", "720x1280", "--report", path("x.json"));
    expect([status, stderr]).toEqual([2, expect.stringContaining("no-report.json: this is no report")]);
    expect(solve(path("nowhere.json"), "--size", "720x1280", "--report", path("x.json")).stderr).toContain(
      "there is no such file",
    );
  });
});

describe("cuts", () => {
  const cuts = (...args: string[]) =>
    spawnSync("node", ["--import", "tsx", "cli/main.ts", "cuts", ...args], { encoding: "utf8" });

  test("finds them to the frame and writes every format", () => {
    const lists = ["edl", "otio", "csv"].flatMap((format) => [`--${format}`, path(`cuts.${format}`)]);
    const { status, stderr, stdout } = cuts(clip("two-shots"), ...lists);
    expect(stderr).toContain("two-shots.mp4: 1 cut, 2 shots.");
    expect([status, stdout]).toEqual([0, ""]);
    const rate = { num: 30, den: 1 };
    const text = (format: string) => readFileSync(path(`cuts.${format}`), "utf8");
    const expected = [{ frame: 45, kind: "cut", range: { start: 45, end: 45 } }];
    expect(readEdl(text("edl"), clockOf(rate, null), 99)).toEqual(expected);
    expect(readOtio(text("otio"), clockOf(rate, null), 99)).toEqual(expected);
    expect(readCutsCsv(text("csv"), clockOf(rate, null), 99)).toEqual(expected);
  });

  test("prints a table when no file is asked for, and refuses what is no film", () => {
    expect(cuts(clip("runner-60")).stdout).toMatch(/^shot,start_frame,.*\n1,0,/);
    expect(cuts(clip("two-shots"), "--sensitivity", "101").status).toBe(2);
    writeFileSync(path("no-film.mp4"), "no film");
    const { status, stderr } = cuts(path("no-film.mp4"), "--edl", path("no.edl"));
    expect(status).toBe(1);
    expect(stderr).toContain("no-film.mp4: this is not a film");
    expect(existsSync(path("no.edl"))).toBe(false);
  });
});

describe("analyse", () => {
  const analyse = (...args: string[]) =>
    spawnSync("node", ["--import", "tsx", "cli/main.ts", "analyse", ...args], { encoding: "utf8" });

  test("writes shots, tracks, who is who, and whom to follow and why, without rendering", () => {
    const { status, stderr } = analyse(clip("two-shots"), "--report", path("found.json"), "--follow", "second");
    expect(status).toBe(0);
    expect(stderr).toContain("2 shots, 2 people");
    const found = AnalysisReport.parse(JSON.parse(readFileSync(path("found.json"), "utf8")));
    expect(found.shots.map(({ start, end }) => [start, end])).toEqual([
      [0, 45],
      [45, 99],
    ]);
    for (const { reason, certainty, subject } of found.shots) {
      expect(reason).toMatch(/second/);
      expect(certainty).toBeGreaterThan(0);
      expect(found.tracks.some(({ id }) => id === subject)).toBe(true);
    }
    const faces = found.tracks.filter(({ kind }) => kind === "face");
    expect(new Set(faces.map(({ who }) => who)).size).toBe(2);
    for (const face of faces) expect(found.tracks.some(({ id }) => id === face.person)).toBe(true);
    expect(leftovers()).toEqual([]);
  });

  test("refuses what makes no sense", () => {
    const refused = analyse(clip("two-shots"), "--report", path("no.json"), "--follow", "everyone");
    expect(refused.status).toBe(2);
    expect(refused.stderr).toContain("first, second, both, speaker, none");
    const outside = analyse(clip("two-shots"), "--report", path("no.json"), "--mark", "500:1,1,50,50");
    expect(outside.status).toBe(2);
    expect(outside.stderr).toContain("frame 500");
    expect(existsSync(path("no.json"))).toBe(false);
  });
});
