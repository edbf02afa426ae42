import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { execFileSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { gladPan } from "../tests/support/command-line";

let folder: string;
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), "glad-pan-words-"));
});
afterAll(() => rmSync(folder, { recursive: true }));

test("the words of a film are printed with their frames, and written as captions", async () => {
  const [film, srt] = ["film.mp4", "titles.srt"].map((name) => join(folder, name)) as [string, string];
  const demo = ["-i", "demo/ferrow-kite-day.mp4", "-t", "9", "-an", "-vf", "scale=960:540", "-preset", "veryfast"];
  execFileSync("ffmpeg", ["-v", "error", ...demo, film]);
  const { status, stdout, stderr } = await gladPan("words", film, "--json", "--srt", srt);
  expect({ status, stderr }).toMatchObject({ status: 0 });
  const texts = JSON.parse(stdout) as { start: number; end: number; lines: string[]; box: number[] }[];
  expect(texts.map(({ lines }) => lines)).toEqual([
    ["Ferrow Kite Day", "an afternoon above the salt meadows"],
    ["Nela Orbin", "Ferrow Kite Society"],
  ]);
  const [title, name] = texts as [(typeof texts)[0], (typeof texts)[0]];
  expect([title.start, title.end]).toEqual([0, 84]);
  // It comes up from frame 104 on and has gone by 224, through fades of some frames.
  expect(name.start).toBeGreaterThanOrEqual(104);
  expect(name.end).toBeLessThanOrEqual(224);
  expect(name.end - name.start).toBeGreaterThan(90);
  expect(readFileSync(srt, "utf8")).toContain("Nela Orbin\nFerrow Kite Society\n");
});
