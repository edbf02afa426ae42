import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { Report } from "~/core/formats/report";
import { gladPan } from "../tests/support/command-line";
import { foundByTruth, writeFound } from "../tests/support/found-by-truth";

let folder: string;
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), "glad-pan-solve-"));
});
afterAll(() => rmSync(folder, { recursive: true }));

const path = (name: string) => join(folder, name);
const solve = (...args: string[]) => gladPan("solve", ...args);

test("lays a path of another shape and movement from what was found before", async () => {
  writeFound("upright-25", path("found.json"));
  const { status, stderr } = await solve(
    ...[path("found.json"), "--size", "720x1280", "--movement", "still", "--zoom", "fixed:1.5"],
    ...["--report", path("solved.json")],
  );
  expect(stderr).toContain("solved.json: 1 shot, 1 keyframe.");
  expect(status).toBe(0);
  const solved = Report.parse(JSON.parse(readFileSync(path("solved.json"), "utf8")));
  expect(solved.target).toEqual({ width: 720, height: 1280 });
  expect(solved.tracks).toEqual(foundByTruth("upright-25").tracks);
  expect(new Set(solved.windows.map(String)).size).toBe(1);
  expect(solved.windows[0]![2]).toBeCloseTo(1280 / 1.5, 1);
});

test("refuses what is no report", async () => {
  writeFileSync(path("no-report.json"), '{"format": "other"}');
  const { status, stderr } = await solve(path("no-report.json"), "--size", "720x1280", "--report", path("x.json"));
  expect([status, stderr]).toEqual([2, expect.stringContaining("no-report.json: this is no report")]);
  const missing = await solve(path("nowhere.json"), "--size", "720x1280", "--report", path("x.json"));
  expect(missing).toMatchObject({ status: 2, stderr: expect.stringContaining("there is no such file") });
});
