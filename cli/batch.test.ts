import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { execFileSync } from "node:child_process";
import { existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { gladPan } from "../tests/support/command-line";
import { measure } from "../tests/support/measure";
import { parseShapes } from "./version-targets";

let folder = "";
const path = (...names: string[]) => join(folder, ...names);
const film = (name: string) =>
  execFileSync("ffmpeg", [
    ...["-v", "error", "-y", "-f", "lavfi", "-i", "testsrc2=s=160x90:r=10:d=1", "-f", "lavfi", "-i", "sine=d=1"],
    ...["-pix_fmt", "yuv420p", path("films", name)],
  ]);

beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), "glad-pan-batch-"));
  mkdirSync(path("films"));
  film("a.mp4");
  film("b.mp4");
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

test("versions are shapes with a shorter side of 1080 pixels, or sizes", () => {
  expect(parseShapes("9x16,4:5,720x1280")).toEqual([
    { name: "9x16", width: 1080, height: 1920 },
    { name: "4x5", width: 1080, height: 1350 },
    { name: "720x1280", width: 720, height: 1280 },
  ]);
  expect(() => parseShapes("tall")).toThrow("such as 9x16");
  expect(() => parseShapes("721x1280")).toThrow("even");
});

test("several films to several versions, in a format, with names by a pattern and reports", async () => {
  const args = ["--versions", "90x160,96x96", "--out", path("out"), "--format", "vp9", "--reports", "--fps", "20"];
  const { status, stderr } = await gladPan(
    ...["export", path("films", "a.mp4"), path("films", "b.mp4"), ...args, "--name", "{version} {film}"],
  );
  expect(stderr).toContain("90 × 160, 20 frames at 20 per second, with sound, 1 shot; checked.");
  expect(status).toBe(0);
  expect(readdirSync(path("out")).sort()).toEqual(
    ["90x160 a", "90x160 b", "96x96 a", "96x96 b"].flatMap((name) => [`${name}.json`, `${name}.webm`]),
  );
  expect(measure(path("out", "96x96 b.webm"))).toMatchObject({ size: [96, 96], frames: 20 });
  expect((await gladPan("check", path("out", "96x96 b.json"), "--limit", "100")).status).toBe(0);
  const wrong = (...more: string[]) => gladPan("export", path("films", "a.mp4"), "--out", path("x"), ...more);
  expect((await wrong()).stderr).toContain("--versions is needed");
  expect((await wrong("--versions", "96x96", "--format", "prores", "--most-mb", "3")).stderr).toContain(
    "--most-mb does not go",
  );
  expect((await wrong("--versions", "96x96", "--format", "mp4", "--bit-depth", "10")).stderr).toContain(
    "--bit-depth 10 does not go with MP4 (H.264), which has 8 bits",
  );
  expect((await wrong("--versions", "96x96", "--bit-depth", "9")).stderr).toContain("A bit depth is 8 or 10");
  expect(existsSync(path("x"))).toBe(false);
});

describe("batch", () => {
  const args = (...more: string[]) => [
    ...["batch", path("films"), "--versions", "90x160", "--out", path("results"), ...more],
  ];
  const log = () =>
    readFileSync(path("results", "glad-pan-batch.jsonl"), "utf8")
      .trim()
      .split("\n")
      .map((line) => JSON.parse(line) as { film: string; state: string; error: string | null });

  test("converts what it can, tells of what it cannot, and goes on where it was", async () => {
    rmSync(path("films", "b.mp4"));
    writeFileSync(path("films", "broken.mov"), "no film");
    const first = await gladPan(...args());
    expect(first.stdout).toMatch(/a\.mp4 +a 90x160\.mp4 +done/);
    expect(first.stdout).toMatch(/broken\.mov +broken 90x160\.mp4 +failed/);
    expect(first.status).toBe(1);
    expect(log().map(({ film: name, state }) => [name, state])).toEqual([
      ["a.mp4", "done"],
      ["broken.mov", "failed"],
    ]);
    rmSync(path("films", "broken.mov"));
    expect(await gladPan(...args())).toMatchObject({ status: 0, stdout: expect.stringContaining("Nothing to do") });

    // A film that came since, and one whose result is gone, are all that is left to do.
    film("c.mp4");
    rmSync(path("results", "a 90x160.mp4"));
    expect((await gladPan(...args())).status).toBe(0);
    const names = () => log().map(({ film: name }) => name);
    expect(names().slice(2)).toEqual(["a.mp4", "c.mp4"]);

    // Other settings are another file; half a line of a run that was killed is no reason to stop.
    rmSync(path("films", "c.mp4"));
    writeFileSync(path("results", "glad-pan-batch.jsonl"), '{"film": "a.m', { flag: "a" });
    expect((await gladPan(...args("--quality", "small"))).stdout).toMatch(/a\.mp4 .*done/);
    expect((await gladPan(...args("--quality", "small"))).stdout).toContain("Nothing to do");
  });
});
