import { execFileSync } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { probeFilm } from "./probe.server";
import { waveformOf } from "./waveform.server";

const folder = mkdtempSync(join(tmpdir(), "glad-pan-waveform-"));
afterAll(() => rmSync(folder, { recursive: true }));

const file = join(folder, "tone.mp4");
beforeAll(() => {
  // Silent for a second, then a tone of half the full scale for one, then silent.
  const sound = "aevalsrc='if(between(t,1,2),0.5*sin(880*PI*t),0)':s=48000:d=3";
  const picture = ["-f", "lavfi", "-i", "color=gray:s=64x64:r=25:d=3", "-f", "lavfi", "-i", sound];
  execFileSync("ffmpeg", ["-v", "error", "-y", ...picture, "-c:v", "libx264", "-c:a", "aac", "-shortest", file]);
});

test("a frame is as loud as the loudest moment in it, and all frames have a value", async () => {
  const info = await probeFilm(file, "tone.mp4");
  const peaks = await waveformOf({ file, name: "tone.mp4", info });
  expect(peaks).toHaveLength(info.frames);
  expect(Math.max(...peaks.subarray(0, 23))).toBeLessThan(4);
  for (const peak of peaks.subarray(27, 48)) expect(Math.abs(peak - 127)).toBeLessThan(12);
  expect(Math.max(...peaks.subarray(53))).toBeLessThan(4);
});
