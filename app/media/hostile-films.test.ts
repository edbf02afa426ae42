import { execFileSync } from "node:child_process";
import { copyFileSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { EVERY_TEST } from "../../tests/support/every-test";
import { extensionOf } from "./containers";
import { decodeFrames } from "./decode.server";
import type { FilmInfo } from "~/core/film/film-info";
import { FilmError } from "./film-tool.server";
import { probeFilm } from "./probe.server";
import { makeProxy } from "./proxy.server";
import { listen, SECONDS_PER_PIECE } from "./voice.server";

const CLIP = "demo/clips/two-shots.mp4";
let folder: string;
const path = (name: string) => join(folder, name);
const ffmpeg = (...args: string[]) =>
  execFileSync("ffmpeg", ["-y", "-v", "error", "-nostdin", ...args], { cwd: folder });
const refusal = async (name: string) => {
  const error = await probeFilm(path(name)).catch((e: unknown) => e);
  expect(error).toBeInstanceOf(FilmError);
  expect((error as Error).message).not.toContain(folder);
  return (error as Error).message;
};

beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), "glad-pan-hostile-"));
  copyFileSync(CLIP, path("other.mp4"));
});
afterAll(() => rmSync(folder, { recursive: true }));

const other = () => path("other.mp4");

describe("files that point elsewhere are no films", () => {
  const files: [string, () => string][] = [
    ["list.m3u8", () => `#EXTM3U\n#EXT-X-TARGETDURATION:4\n#EXTINF:3.3,\nfile://${other()}\n#EXT-X-ENDLIST\n`],
    ["list.mp4", () => `#EXTM3U\n#EXT-X-TARGETDURATION:4\n#EXTINF:3.3,\n${other()}\n#EXT-X-ENDLIST\n`],
    ["concat.mp4", () => `ffconcat version 1.0\nfile 'other.mp4'\n`],
    [
      "manifest.mp4",
      () =>
        `<?xml version="1.0"?><MPD xmlns="urn:mpeg:dash:schema:mpd:2011" type="static" mediaPresentationDuration="PT3S" profiles="urn:mpeg:dash:profile:isoff-on-demand:2011"><Period><AdaptationSet mimeType="video/mp4"><Representation id="1" bandwidth="1000" width="1280" height="720"><BaseURL>${other()}</BaseURL></Representation></AdaptationSet></Period></MPD>`,
    ],
    ["session.sdp", () => `v=0\no=- 0 0 IN IP4 127.0.0.1\ns=x\nc=IN IP4 127.0.0.1\nt=0 0\nm=video 5004 RTP/AVP 96\n`],
  ];
  test.each(files)("%s", async (name, content) => {
    writeFileSync(path(name), content());
    expect(await refusal(name)).toMatch(/not a film/);
  });

  test("also where they are read without being looked into first", async () => {
    writeFileSync(path("late.mp4"), `ffconcat version 1.0\nfile 'other.mp4'\n`);
    const film = { file: path("late.mp4"), name: "late.mp4", info: await probeFilm(other()) };
    await expect(makeProxy(film, path("late-proxy"))).rejects.toThrow("late.mp4: it cannot be decoded");
    const decode = async () => {
      for await (const frame of decodeFrames(film, {})) expect(frame.length).toBe(0);
    };
    await expect(decode()).rejects.toThrow("late.mp4: it cannot be decoded");
  });
});

describe("more is not done than can be", () => {
  // Only this finds that a picture of any size is taken; to make one takes long.
  (EVERY_TEST ? test : test.skip)("pictures larger than 8K are refused", async () => {
    ffmpeg("-f", "lavfi", "-i", "color=s=9000x5000:r=5:d=0.6", "-c:v", "ffv1", "huge.mkv");
    expect(await refusal("huge.mkv")).toMatch(/larger than is supported|not a film/);
  });

  test("sound that is stamped with a time hours later is not waited for with silence", async () => {
    const stamp = "setts=ts=if(gt(N\\,60)\\,TS+1e7\\,TS)";
    ffmpeg("-i", "other.mp4", "-c", "copy", "-bsf:a", stamp, "-map", "0", "far.mkv");
    const film = { file: path("far.mkv"), name: "far.mkv", info: await probeFilm(other()) };
    let pieces = 0;
    for await (const share of listen(film, 0)) pieces += share >= 0 ? 1 : 0;
    expect(pieces * SECONDS_PER_PIECE).toBeLessThan(3.3 + 3);
    await makeProxy(film, path("far-proxy"));
  });

  test("frames that are claimed and not there are not believed", async () => {
    // The count of samples in the table of their sizes, and the time that each takes.
    const bytes = readFileSync(CLIP);
    const claim = (frames: number, name: string) => {
      const film = Buffer.from(bytes);
      const stsz = film.indexOf("stsz");
      film.writeUInt32BE(20, stsz + 8);
      film.writeUInt32BE(frames, stsz + 12);
      film.writeUInt32BE(frames, film.indexOf("stts") + 12);
      writeFileSync(path(name), film);
    };
    // Either it is refused, or the pictures that are there count.
    for (const claimed of [3_000_001, 900_000]) {
      claim(claimed, "claims.mp4");
      const info = await probeFilm(path("claims.mp4")).catch((error: unknown) => error);
      if (info instanceof FilmError) expect(info.message).toMatch(/more than the 2592000|claims to have|not a film/);
      else expect((info as FilmInfo).frames).toBeLessThan(110);
    }
  });
});

test("a film most of whose pictures are broken is worked with for those that are not", async () => {
  const bytes = readFileSync(CLIP);
  writeFileSync(path("broken.mp4"), bytes.fill(0, 34_000, 218_000));
  const film = { file: path("broken.mp4"), name: "broken.mp4", info: await probeFilm(path("broken.mp4")) };
  await makeProxy(film, path("broken-proxy"));
  expect((await probeFilm(path("broken-proxy/0.mp4"))).frames).toBe(99);
});

test("a name may begin with a dash and hold a colon", async () => {
  for (const name of ["-y.mp4", "a:b.mp4", "%03d.mp4", "pipe:0.mp4"]) {
    copyFileSync(CLIP, path(name));
    const info = await probeFilm(path(name));
    expect(info.frames).toBe(99);
    const size = { width: 64, height: 36 };
    let count = 0;
    for await (const frame of decodeFrames({ file: path(name), name, info }, { size }))
      count += frame.length > 0 ? 1 : 0;
    expect(count).toBe(99);
  }
  const film = { file: path("-y.mp4"), name: "-y.mp4", info: await probeFilm(path("-y.mp4")) };
  await makeProxy(film, path("a:proxy"));
  expect((await probeFilm(path("a:proxy/0.mp4"))).frames).toBe(99);
});

describe("what cannot be decoded is refused by its name", () => {
  test("a codec that nobody knows", async () => {
    const bytes = readFileSync(CLIP).toString("latin1").replaceAll("avc1", "xyz1").replaceAll("avcC", "xyzC");
    writeFileSync(path("unknown.mp4"), bytes, "latin1");
    expect(await refusal("unknown.mp4")).toBe(
      "unknown.mp4: its video codec is not supported (“xyz1”). Export it as H.264, H.265 or ProRes.",
    );
  });

  test("a film that is encrypted", async () => {
    const key = [
      "-encryption_key",
      "76a6c65c5ea762046bd749a2e632ccbb",
      "-encryption_kid",
      "a7e61c373e219033c21091fa607bf3b8",
    ];
    ffmpeg("-i", "other.mp4", "-c", "copy", "-encryption_scheme", "cenc-aes-ctr", ...key, "locked.mp4");
    expect(await refusal("locked.mp4")).toMatch(/^locked.mp4: it is encrypted/);
  });
});

test("a film is kept as what is in it, whatever it is called", async () => {
  copyFileSync(CLIP, path("page.html"));
  const info = await probeFilm(path("page.html"));
  expect(extensionOf(info)).toBe(".mp4");
  const film = (container: string, videoCodec: string) => ({ container, videoCodec });
  expect(extensionOf(film("matroska,webm", "vp9"))).toBe(".webm");
  expect(extensionOf(film("matroska,webm", "h264"))).toBe(".mkv");
  expect(extensionOf(film("unknown", "h264"))).toBe(".film");
});
