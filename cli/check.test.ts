import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { FlagList } from "~/core/formats/flags";
import { gladPan } from "../tests/support/command-line";

let folder = "";
const path = (name: string) => join(folder, name);
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), "glad-pan-check-"));
});
afterAll(() => rmSync(folder, { recursive: true }));

const check = (...args: string[]) => gladPan("check", ...args);

const LIST: FlagList = {
  format: "glad-pan/flags",
  version: 2,
  film: "Kites.mp4",
  rate: [25, 1],
  of: "Reel",
  flags: [
    { kind: "looks-out", shot: 1, start: 0, end: 50, frame: 10, severity: 12, text: "Looks out of the near edge" },
    { kind: "subject-cut", shot: 2, start: 50, end: 100, frame: 60, severity: 64, text: "Face cut off for 2.0 s" },
  ],
};
const write = (name: string, content: unknown) => {
  writeFileSync(path(name), typeof content === "string" ? content : JSON.stringify(content));
  return path(name);
};

describe("check", () => {
  test("prints the looks of a list, the worst first, and exits 3 where one is worse than may be", async () => {
    const { status, stdout } = await check(write("flags.json", LIST));
    expect(stdout.split("\n").slice(1, 3)).toEqual([
      "   64  shot 2, 00:00:02:00 to 00:00:04:00: Face cut off for 2.0 s",
      "   12  shot 1, 00:00:00:00 to 00:00:02:00: Looks out of the near edge",
    ]);
    expect(stdout).toContain("Kites.mp4, Reel, 2 flags, 1 worse than 50");
    expect(status).toBe(3);
    expect((await check(path("flags.json"), "--limit", "70")).status).toBe(0);
  });

  test("several reports as JSON", async () => {
    const { status, stdout } = await check(write("a.json", LIST), write("b.json", { ...LIST, flags: [] }), "--json");
    expect(JSON.parse(stdout)).toEqual([
      { report: path("a.json"), of: "Kites.mp4, Reel", flags: LIST.flags },
      { report: path("b.json"), of: "Kites.mp4, Reel", flags: [] },
    ]);
    expect(status).toBe(3);
  });

  test("what cannot be read is named, with what to do", async () => {
    expect(await check(path("none.json"))).toMatchObject({
      status: 2,
      stderr: expect.stringContaining("no such file"),
    });
    expect(await check(write("x.json", "not json"))).toMatchObject({
      status: 2,
      stderr: expect.stringContaining("x.json: this is not JSON"),
    });
    const broken = { ...LIST, flags: [{ ...LIST.flags[0], severity: 400 }] };
    expect((await check(write("y.json", broken))).stderr).toContain("flags.0.severity");
    expect((await check(path("a.json"), "--limit", "much")).status).toBe(2);
  });
});
