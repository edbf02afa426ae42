import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { execFileSync } from "node:child_process";
import { existsSync, mkdtempSync, readdirSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { gladPan } from "../tests/support/command-line";
import { measure } from "../tests/support/measure";

let folder = "";
const path = (name: string) => join(folder, name);

beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), "glad-pan-share-"));
  const shots = ["testsrc2", "smptehdbars", "testsrc"].flatMap((name) => [
    "-f",
    "lavfi",
    "-i",
    `${name}=s=320x180:r=20`,
  ]);
  const joined = "[0:v]trim=end_frame=60[a];[1:v]trim=end_frame=60[b];[2:v]trim=end_frame=60[c];[a][b][c]concat=n=3";
  execFileSync("ffmpeg", ["-v", "error", ...shots, "-filter_complex", joined, "-pix_fmt", "yuv420p", path("film.mp4")]);
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

test("a film is looked through once, its parts are made in shares, and joined when all are there", async () => {
  expect((await gladPan("analyse", path("film.mp4"), "--report", path("film.json"))).status).toBe(0);
  const parts = () => readdirSync(path("parts")).length;
  const convert = (...more: string[]) =>
    gladPan(
      ...["convert", path("film.mp4"), "--analysis", path("film.json"), "--size", "90x160", "--out", path("out.mp4")],
      ...more,
    );
  expect(await convert("--share", "1/2")).toMatchObject({
    status: 2,
    stderr: expect.stringContaining("--share needs --parts"),
  });
  for (const share of ["1/2", "2/2"]) {
    const { status, stderr } = await convert("--parts", path("parts"), "--share", share);
    expect(stderr).toMatch(/share \d of 2, \d of \d parts made/);
    expect(stderr).not.toContain("Looking for shots");
    expect(status).toBe(0);
    expect(existsSync(path("out.mp4"))).toBe(false);
  }
  const made = parts();
  expect(made).toBeGreaterThan(2);
  expect((await convert("--parts", path("parts"))).status).toBe(0);
  expect(parts()).toBe(made);
  expect(measure(path("out.mp4"))).toMatchObject({ size: [90, 160], frames: 180 });
  expect((await convert("--parts", path("parts"), "--share", "3/2")).status).toBe(2);
  const other = await gladPan(
    "convert",
    "demo/clips/two-shots.mp4",
    "--analysis",
    path("film.json"),
    "--size",
    "90x160",
    "--out",
    path("x.mp4"),
  );
  expect(other.stderr).toContain("film.json is not of all of two-shots.mp4");
});
