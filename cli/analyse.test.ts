import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { AnalysisReport } from "~/core/formats/report";
import { gladPan } from "../tests/support/command-line";

let folder: string;
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), "glad-pan-analyse-"));
});
afterAll(() => rmSync(folder, { recursive: true }));

const path = (name: string) => join(folder, name);
const analyse = (...args: string[]) => gladPan("analyse", "demo/clips/two-shots.mp4", ...args);

test("writes shots, tracks, who is who, and whom to follow and why, without rendering", async () => {
  const { status, stderr } = await analyse("--report", path("found.json"), "--follow", "second");
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
  expect(readdirSync(folder)).toEqual(["found.json"]);
});

test("refuses what makes no sense", async () => {
  const refused = await analyse("--report", path("no.json"), "--follow", "everyone");
  expect(refused.status).toBe(2);
  expect(refused.stderr).toContain("first, second, both, speaker, none");
  const outside = await analyse("--report", path("no.json"), "--mark", "500:1,1,50,50");
  expect(outside.status).toBe(2);
  expect(outside.stderr).toContain("frame 500");
  expect(existsSync(path("no.json"))).toBe(false);
});
