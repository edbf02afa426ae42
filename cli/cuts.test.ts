import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { readCutsCsv } from "~/core/formats/cuts-csv";
import { readEdl } from "~/core/formats/edl";
import { readOtio } from "~/core/formats/otio";
import { clockOf } from "~/core/time/timecode";
import { gladPan } from "../tests/support/command-line";

let folder: string;
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), "glad-pan-cuts-"));
});
afterAll(() => rmSync(folder, { recursive: true }));

const path = (name: string) => join(folder, name);
const cuts = (...args: string[]) => gladPan("cuts", ...args);

test("finds them to the frame and writes every format", async () => {
  const lists = ["edl", "otio", "csv"].flatMap((format) => [`--${format}`, path(`cuts.${format}`)]);
  const { status, stderr, stdout } = await cuts("demo/clips/two-shots.mp4", ...lists);
  expect(stderr).toContain("two-shots.mp4: 1 cut, 2 shots.");
  expect([status, stdout]).toEqual([0, ""]);
  const clock = clockOf({ num: 30, den: 1 }, null);
  const text = (format: string) => readFileSync(path(`cuts.${format}`), "utf8");
  const expected = [{ frame: 45, kind: "cut", range: { start: 45, end: 45 } }];
  expect(readEdl(text("edl"), clock, 99)).toEqual(expected);
  expect(readOtio(text("otio"), clock, 99)).toEqual(expected);
  expect(readCutsCsv(text("csv"), clock, 99)).toEqual(expected);
});

test("prints a table when no file is asked for, and refuses what is no film", async () => {
  const printed = await cuts("demo/clips/runner-60.mp4");
  expect(printed).toMatchObject({ status: 0, stdout: expect.stringMatching(/^shot,start_frame,.*\n1,0,/) });
  expect((await cuts("demo/clips/two-shots.mp4", "--sensitivity", "101")).status).toBe(2);
  writeFileSync(path("no-film.mp4"), "no film");
  const { status, stderr } = await cuts(path("no-film.mp4"), "--edl", path("no.edl"));
  expect(status).toBe(1);
  expect(stderr).toContain("no-film.mp4: this is not a film");
  expect(existsSync(path("no.edl"))).toBe(false);
});
