import { expect, test } from "@jest/globals";
import { INFO } from "../../../tests/support/film-info";
import { infoOfClips } from "./info-of-clips";
import { planClips } from "./plan-clips";

const FORMAT = {
  videoCodec: "h264",
  soundCodec: "pcm_s16le",
  container: "concat",
  timescale: 30_000,
  seekMargin: 0.5,
};
const wide = { ...INFO, frames: 300, bytes: 1000, bitDepth: 8 };
const upright = { ...INFO, picture: { width: 1080, height: 1920 }, frames: 60, bytes: 500, bitDepth: 10 };
const of = (...infos: (typeof wide)[]) => infoOfClips(planClips(infos), infos, FORMAT);

test("a film of clips is as long as they are together, and has the depth of the deepest", () => {
  expect(of(wide, upright)).toMatchObject({
    frames: 360,
    bytes: 1500,
    bitDepth: 10,
    picture: { width: 1920, height: 1920 },
    container: "concat",
    videoCodec: "h264",
    grid: { origin: 0, lastPicture: 359 / 30, even: true, held: 0, seekMargin: 0.5, timeBase: 1 / 30_000 },
  });
  expect(of(wide, wide).bitDepth).toBe(8);
});

test("it has a sound if one of them has", () => {
  expect(of(wide, upright)).toMatchObject({ audio: null, sounds: [] });
  const heard = { ...upright, audio: { codec: "aac", index: 2, start: 0.1 } };
  const sound = { codec: "pcm_s16le", index: 0, start: 0 };
  expect(of(wide, heard)).toMatchObject({
    audio: sound,
    sounds: [{ ...sound, channels: 2, language: null, title: null }],
  });
});
