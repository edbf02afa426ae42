import { expect, test } from "@jest/globals";
import { framesPerSecond } from "~/core/time/rate";
import { readTruth } from "../../demo/truth";
import { probeFilm } from "./probe.server";
import { listen, SECONDS_PER_PIECE } from "./voice.server";

const file = "demo/ferrow-kite-day.mp4";
const truth = readTruth("demo/ferrow-kite-day.truth.json");
/** A frame in the middle of what is said; what follows it is no whole number of seconds. */
const FROM = 200;
/** Seconds around what is said in which it may be heard. */
const AROUND = 0.3;

test("a voice is heard where somebody speaks, and nowhere else, from a frame to the film's end", async () => {
  const info = await probeFilm(file);
  const fps = framesPerSecond(info.rate);
  const heard: number[] = [];
  for await (const probability of listen({ file, name: file, info }, FROM)) heard.push(probability);
  const seconds = (info.frames - FROM) / fps;
  expect(Math.abs(heard.length * SECONDS_PER_PIECE - seconds)).toBeLessThan(2 * SECONDS_PER_PIECE);

  const said = truth.speech
    .filter(({ end }) => end > FROM)
    .map(({ start, end }) => ({ start: Math.max(0, start - FROM) / fps, end: (end - FROM) / fps }));
  const between = (start: number, end: number) =>
    heard.slice(Math.round(start / SECONDS_PER_PIECE), Math.round(end / SECONDS_PER_PIECE));
  expect(said.length).toBeGreaterThan(3);
  for (const { start, end } of said) expect(Math.max(...between(start, end))).toBeGreaterThan(128);
  const quiet = heard.filter((_, piece) => {
    const at = piece * SECONDS_PER_PIECE;
    return at > AROUND && !said.some(({ start, end }) => at > start - AROUND && at < end + AROUND);
  });
  expect(quiet.length).toBeGreaterThan(100);
  expect(quiet.filter((probability) => probability > 128).length).toBeLessThan(0.05 * quiet.length);
});
