import { expect, test } from "@jest/globals";
import { INFO } from "../../tests/support/film-info";
import { playsInBrowser } from "./browser-playback";

const info = { ...INFO, rate: { num: 25, den: 1 } };

test("a film plays as it is in a codec and a file that browsers know", () => {
  expect(playsInBrowser("/films/a/source.mp4", info)).toBe(true);
  expect(playsInBrowser("/films/a/source.webm", { ...info, videoCodec: "vp9" })).toBe(true);
  expect(playsInBrowser("/films/a/source.mov", { ...info, videoCodec: "prores" })).toBe(false);
  expect(playsInBrowser("/films/a/source.mkv", info)).toBe(false);
});

test("and where its frames are on the film's grid, as the film shows them", () => {
  const { grid } = info;
  for (const other of [
    { grid: { ...grid, even: false } },
    { grid: { ...grid, origin: 0.04 } },
    { nonSquarePixels: true },
    { interlaced: true },
  ]) {
    expect(playsInBrowser("/films/a/source.mp4", { ...info, ...other })).toBe(false);
  }
});
