/** The command line as people have it: `./glad-pan`, which bundles it, in a process of its own. */
import { spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { writeFound } from "../tests/support/found-by-truth";
import { measure } from "../tests/support/measure";

let folder: string;
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), "glad-pan-program-"));
});
afterAll(() => rmSync(folder, { recursive: true }));

const CLIP = resolve("demo/clips/upright-25.mp4");
/** Called from somewhere else, with files named from there. */
const gladPan = (...args: string[]) => spawnSync(resolve("glad-pan"), args, { cwd: folder, encoding: "utf8" });

test("looks through a film with its detectors, and writes what it found where it was called", () => {
  const { status, stderr } = gladPan("analyse", CLIP, "--report", "found.json");
  expect(stderr).toContain("found.json: 1 shot, 1 person");
  expect(status).toBe(0);
  expect(JSON.parse(readFileSync(join(folder, "found.json"), "utf8"))).toMatchObject({ format: "glad-pan/analysis" });
});

test("renders a file, telling how far it is", () => {
  writeFound("upright-25", join(folder, "before.json"));
  const args = ["--analysis", "before.json", "--size", "96x96", "--out", "square.mp4"];
  const { status, stderr } = gladPan("convert", CLIP, ...args);
  expect(stderr).toMatch(/Rendering +\d+%\n[\s\S]*square.mp4: 96 × 96/);
  expect(status).toBe(0);
  expect(measure(join(folder, "square.mp4"))).toMatchObject({ size: [96, 96], frames: 50 });
});

test("exits with 2 where it is called wrongly", () => {
  const { status, stderr, stdout } = gladPan("convert", CLIP, "--size", "97x96", "--out", "x.mp4");
  expect([status, stdout]).toEqual([2, ""]);
  expect(stderr).toContain("must be even");
});
