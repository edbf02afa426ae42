import { USUAL_OUTPUT } from "~/core/formats/output-settings";
import { fill } from "~/core/composition/composition";
import { execFileSync } from "node:child_process";
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { setTimeout as sleep } from "node:timers/promises";
import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { decodeFrames } from "./decode.server";
import { FilmError } from "./film-tool.server";
import { probeFilm } from "./probe.server";
import { clockOfFilm } from "~/core/film/film-info";
import { makePoster } from "./poster.server";
import { makeProxy } from "./proxy.server";
import { renderFilm } from "./render/render.server";
import { CancelledError } from "./tool.server";
import { hasBars, verifyFile } from "./verify.server";

const CLIP = "tests/fixtures/two-shots.mp4";
let folder: string;
const path = (name: string) => join(folder, name);
const ffmpeg = (...args: string[]) => execFileSync("ffmpeg", ["-y", "-v", "error", "-nostdin", ...args]);

beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), "glad-pan-media-"));
});
afterAll(() => rmSync(folder, { recursive: true }));

describe("probing", () => {
  test("tells a film's size, rate, length and sound", async () => {
    expect(await probeFilm(CLIP)).toMatchObject({
      picture: { width: 320, height: 180 },
      rate: { num: 30, den: 1 },
      frames: 99,
      grid: { origin: 0, even: true, held: 0 },
      interlaced: false,
      audio: { codec: "aac", index: 0, start: 0 },
    });
    expect((await probeFilm("tests/fixtures/upright-25.mp4")).audio).toBeNull();
  });

  test("sees the picture as it is displayed: rotated, and with square pixels", async () => {
    ffmpeg("-i", CLIP, "-c", "copy", "-metadata:s:v:0", "rotate=90", path("rotated.mp4"));
    expect((await probeFilm(path("rotated.mp4"))).picture).toEqual({ width: 180, height: 320 });
    ffmpeg("-i", CLIP, "-t", "0.5", "-vf", "setsar=4/3", path("wide-pixels.mp4"));
    expect(await probeFilm(path("wide-pixels.mp4"))).toMatchObject({ picture: { width: 427 }, nonSquarePixels: true });
  });

  test("puts uneven frames on a grid", async () => {
    ffmpeg("-i", CLIP, "-t", "3", "-vf", "select='not(eq(mod(n,7),3))'", "-fps_mode", "vfr", path("uneven.mp4"));
    const info = await probeFilm(path("uneven.mp4"));
    expect(info).toMatchObject({ rate: { num: 30, den: 1 }, frames: 90, grid: { even: false, held: 13 } });
    let count = 0;
    for await (const frame of decodeFrames({ file: path("uneven.mp4"), name: "uneven", info }, {})) {
      count += frame.length > 0 ? 1 : 0;
    }
    expect(count).toBe(90);
  });

  test("finds the pictures of an AVI with B-frames, which are only counted, where they belong", async () => {
    const brighter = ["-f", "lavfi", "-i", "color=black:size=64x64:rate=25,geq=lum=20+8*N:cb=128:cr=128"];
    ffmpeg(...brighter, "-frames:v", "20", "-c:v", "mpeg4", "-bf", "1", "-q:v", "1", path("counted.avi"));
    const info = await probeFilm(path("counted.avi"));
    expect(info).toMatchObject({ frames: 20, grid: { even: true, timeBase: 1 / 25, late: 1 / 25 } });
    const film = { file: path("counted.avi"), name: "counted", info };
    const stamps: number[] = [];
    for (const start of [0, 13]) {
      const seen: number[] = [];
      const options = { range: { start, end: 20 }, onDecoded: (seconds: number) => stamps.push(seconds) };
      for await (const frame of decodeFrames(film, options)) seen.push(Math.round((frame[0]! - 20) / 8));
      expect(seen.join()).toBe(Array.from({ length: 20 - start }, (_, i) => start + i).join());
    }
    expect(stamps[0]).toBeCloseTo(0);
  });

  test("refuses what is no film, by its name and with what to do", async () => {
    writeFileSync(path("text.mp4"), "This is not a film.");
    writeFileSync(path("empty.mp4"), "");
    ffmpeg("-f", "lavfi", "-i", "sine=d=1", path("sound.m4a"));
    ffmpeg("-f", "lavfi", "-i", "color=s=64x64", "-frames:v", "1", path("still.png"));
    // Its index would be at the end.
    ffmpeg("-i", CLIP, "-c", "copy", path("indexed-last.mp4"));
    writeFileSync(path("cut-off.mp4"), readFileSync(path("indexed-last.mp4")).subarray(0, 30_000));
    const refusals: [string, string][] = [
      ["text.mp4", "not a film"],
      ["empty.mp4", "empty"],
      ["sound.m4a", "no picture"],
      ["still.png", "still picture"],
      ["cut-off.mp4", "cut off"],
      ["missing.mp4", "no such file"],
    ];
    for (const [name, reason] of refusals) {
      const error = await probeFilm(path(name)).catch((e: unknown) => e);
      expect(error).toBeInstanceOf(FilmError);
      expect((error as Error).message).toMatch(new RegExp(`^${name}: .*${reason}.*\\.`));
    }
  });
});

describe("decoding", () => {
  test("begins at exactly the asked frame", async () => {
    const info = await probeFilm(CLIP);
    const size = { width: 64, height: 36 };
    const read = async (range: { start: number; end: number }) => {
      const frames: Buffer[] = [];
      for await (const frame of decodeFrames({ file: CLIP, name: "clip", info }, { size, range })) frames.push(frame);
      return frames;
    };
    const all = await read({ start: 0, end: 99 });
    expect(all).toHaveLength(99);
    for (const start of [1, 44, 45, 97]) {
      const [first] = await read({ start, end: start + 2 });
      expect(first!.equals(all[start]!)).toBe(true);
    }
    const some: Buffer[] = [];
    const options = { size, range: { start: 44, end: 60 }, every: 5 };
    for await (const frame of decodeFrames({ file: CLIP, name: "clip", info }, options)) some.push(frame);
    expect(some.map((frame) => all.findIndex((other) => other.equals(frame)))).toEqual([44, 49, 54, 59]);
  });

  test("gives the same frames where they may wait, and can be left in the middle", async () => {
    const film = { file: CLIP, name: "clip", info: await probeFilm(CLIP) };
    const size = { width: 64, height: 36 };
    const read = async (waiting?: number, most = Infinity) => {
      const frames: Buffer[] = [];
      for await (const frame of decodeFrames(film, { size, waiting })) {
        frames.push(frame);
        if (frames.length === most) break;
        // Whoever takes them is slow at first, so that the queue fills.
        if (waiting && frames.length < 4) await sleep(100);
      }
      return frames;
    };
    const plain = await read();
    expect(plain).toHaveLength(99);
    expect(Buffer.concat(await read(8)).equals(Buffer.concat(plain))).toBe(true);
    expect(await read(8, 5)).toHaveLength(5);
  });

  test("takes a film that was cut off for what is there", async () => {
    ffmpeg("-i", CLIP, "-c", "copy", "-f", "matroska", path("whole.mkv"));
    const whole = readFileSync(path("whole.mkv"));
    writeFileSync(path("cut-off.mkv"), whole.subarray(0, whole.length / 2));
    const film = { file: path("cut-off.mkv"), name: "cut-off.mkv", info: await probeFilm(path("cut-off.mkv")) };
    // The sound's last block lasts a little longer than the picture.
    const { frames: count, cutOff } = film.info;
    expect(count + cutOff).toBe(100);
    expect(Math.min(count, cutOff)).toBeGreaterThan(25);
    const size = { width: 64, height: 36 };
    const frames: Buffer[] = [];
    for await (const frame of decodeFrames(film, { size, waiting: 8 })) frames.push(frame);
    expect(frames).toHaveLength(count);
    const late: Buffer[] = [];
    for await (const frame of decodeFrames(film, { size, range: { start: count - 2, end: count } })) late.push(frame);
    expect(late.map((frame, i) => frame.equals(frames[count - 2 + i]!))).toEqual([true, true]);
  });
});

describe("rendering", () => {
  const target = { width: 90, height: 160 };
  const output = USUAL_OUTPUT;
  const shown = (frame: number) => fill({ x: 75 + 0.8 * frame, y: 90, height: 180 }, target);

  test("writes the size, the frames and the sound that were asked for, without bars", async () => {
    const info = await probeFilm(CLIP);
    const plan = { file: CLIP, name: "clip", info, target, ranges: [{ start: 0, end: 99 }], shown, output };
    const shares: number[] = [];
    await renderFilm(plan, path("out.mp4"), { onProgress: (share) => shares.push(share) });
    expect(shares.at(-1)).toBe(1);
    const expected = { size: target, rate: info.rate, frames: 99, sound: true };
    const { figures, faults } = await verifyFile(path("out.mp4"), expected);
    expect(faults).toEqual([]);
    expect(Math.abs(figures.soundSeconds! - 3.3)).toBeLessThan(1 / 30);
    expect(await hasBars(path("out.mp4"), target)).toBe(false);
  });

  test("of a range begins and ends where it should, with its sound", async () => {
    const info = await probeFilm(CLIP);
    const range = { start: 45, end: 90 };
    await renderFilm({ file: CLIP, name: "clip", info, target, ranges: [range], shown, output }, path("part.mp4"));
    const { figures, faults } = await verifyFile(path("part.mp4"), {
      size: target,
      rate: info.rate,
      frames: 45,
      sound: true,
    });
    expect(faults).toEqual([]);
    expect(Math.abs(figures.soundSeconds! - 1.5)).toBeLessThan(1 / 30);
  });

  test("of several ranges joins them, picture and sound", async () => {
    const info = await probeFilm(CLIP);
    const ranges = [
      { start: 6, end: 30 },
      { start: 60, end: 99 },
    ];
    await renderFilm({ file: CLIP, name: "clip", info, target, ranges, shown, output }, path("joined.mp4"));
    const expected = { size: target, rate: info.rate, frames: 63, sound: true };
    const { figures, faults } = await verifyFile(path("joined.mp4"), expected);
    expect(faults).toEqual([]);
    expect(Math.abs(figures.soundSeconds! - 2.1)).toBeLessThan(1 / 30);
  });

  test("can be stopped", async () => {
    const info = await probeFilm(CLIP);
    const controller = new AbortController();
    const rendering = renderFilm(
      { file: CLIP, name: "clip", info, target, ranges: [{ start: 0, end: 99 }], shown, output },
      path("stopped.mp4"),
      { signal: controller.signal, onProgress: () => controller.abort() },
    );
    await expect(rendering).rejects.toBeInstanceOf(CancelledError);
  });

  test("a check finds every fault", async () => {
    ffmpeg("-i", CLIP, "-an", "-vf", "scale=90:50,pad=90:160:0:55,setsar=1", "-r", "25", path("wrong.mp4"));
    const { faults } = await verifyFile(path("wrong.mp4"), {
      size: { width: 640, height: 360 },
      rate: { num: 30, den: 1 },
      frames: 99,
      sound: true,
    });
    expect(faults).toHaveLength(4);
    expect(await hasBars(path("wrong.mp4"), target)).toBe(true);
  });

  test("finds bars in the ranges that are looked at, and in no others", async () => {
    const size = { width: 160, height: 120 };
    const film = "testsrc2=s=160x120:r=20:d=3,drawbox=0:0:160:20:black:fill:enable='gte(n,20)'";
    ffmpeg("-f", "lavfi", "-i", film, "-pix_fmt", "yuv420p", path("barred.mp4"));
    const barsIn = (...ranges: { start: number; end: number }[]) => hasBars(path("barred.mp4"), size, { ranges });
    expect(await barsIn({ start: 0, end: 20 })).toBe(false);
    expect(await barsIn({ start: 20, end: 60 })).toBe(true);
    expect(await barsIn({ start: 0, end: 10 }, { start: 40, end: 60 })).toBe(false);
  });
});

test("the sounds of a file are told, and which of them is the usual one", async () => {
  const tagged = ["-metadata:s:a:1", "language=deu", "-disposition:a:0", "0", "-disposition:a:1", "default"];
  ffmpeg("-i", CLIP, "-map", "0:v", "-map", "0:a", "-map", "0:a", "-c", "copy", ...tagged, path("two.mkv"));
  const { sounds, audio } = await probeFilm(path("two.mkv"));
  expect(sounds).toMatchObject([
    { index: 0, channels: 1, codec: "aac" },
    { index: 1, language: "deu" },
  ]);
  expect(audio!.index).toBe(1);
});

test("a film's clock begins with the timecode in its file", async () => {
  ffmpeg("-i", CLIP, "-c", "copy", "-timecode", "01:00:00:10", path("clock.mov"));
  expect(clockOfFilm(await probeFilm(path("clock.mov"))).first).toBe(30 * 3600 + 10);
  expect(clockOfFilm(await probeFilm(CLIP)).first).toBe(0);
});

test("proxy and poster are whole or not there", async () => {
  const film = { file: CLIP, name: "two-shots.mp4", info: await probeFilm(CLIP) };
  await makePoster(film, path("desk/poster.jpg"));
  await makeProxy(film, path("desk/proxy"));
  const piece = await probeFilm(path("desk/proxy/0.mp4"));
  expect(piece).toMatchObject({ picture: { width: 320, height: 180 }, frames: 99 });
  const controller = new AbortController();
  controller.abort();
  await expect(makeProxy(film, path("desk/other"), { signal: controller.signal })).rejects.toBeInstanceOf(
    CancelledError,
  );
  expect(readdirSync(path("desk/other"))).toEqual([]);
});
