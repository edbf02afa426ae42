/** A whole analysis that goes where it is waited for: the demo film, the detectors and a real database. */
import { execFileSync } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, expect, test } from "@jest/globals";
import type { FrameRange } from "~/core/time/rate";
import { listAnalysed } from "~/db/analysis.server";
import { findFilm, setWanted } from "~/db/films.server";
import { listShots } from "~/db/shots.server";
import { readActivity } from "~/db/activity.server";
import { analyseInPasses } from "~/pipelines/analyse-in-passes.server";
import { readTruth } from "../../../demo/truth";
import { databaseStore } from "./analysis-store.server";
import { addFilm } from "~/library/films/films.server";
import { db, sourceFile, useDatabase } from "~/db/workplace.server";

const truth = readTruth("demo/ferrow-kite-day.truth.json");
/** Of the demo film, every so manieth frame is enough: what is waited for is told in seconds. */
const STEP = 6;
const RATE = truth.rate[0] / STEP;
/** The film that is analysed is the first shots of the demo film, so many times over; once they take so many frames. */
const TIMES = 4;
const ONCE = truth.shots[3]!.start / STEP;
const starts = Array.from({ length: TIMES }, (_, n) => n).flatMap((n) =>
  truth.shots.slice(0, 3).map(({ start }) => start / STEP + n * ONCE),
);
let folder: string;
let id: string;

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), "glad-pan-order-"));
  process.env.GLAD_PAN_DATA = join(folder, "data");
  const [once, often] = ["once.mov", "often.mov"].map((name) => join(folder, name)) as [string, string];
  const seconds = String(ONCE / RATE);
  const smaller = ["-vf", `select='not(mod(n,${STEP}))',scale=320:180`, "-r", String(RATE)];
  const encode = [...smaller, "-c:v", "libx264", "-preset", "ultrafast", "-crf", "20", "-bf", "0", "-c:a", "pcm_s16le"];
  execFileSync("ffmpeg", ["-v", "error", "-i", "demo/ferrow-kite-day.mp4", "-t", seconds, ...encode, once]);
  execFileSync("ffmpeg", [
    "-v",
    "error",
    "-stream_loop",
    String(TIMES - 1),
    "-i",
    once,
    "-map",
    "0",
    "-c",
    "copy",
    often,
  ]);
  id = await addFilm(often, "Often.mov", "move");
});
afterAll(() => {
  useDatabase(null);
  rmSync(folder, { recursive: true });
});

/** Analyses the film, as a worker does, and gives the ranges in the order in which they were finished. */
async function analyse(onShots: () => void): Promise<FrameRange[]> {
  const film = findFilm(db(), id)!;
  const store = databaseStore(db(), id);
  const order: FrameRange[] = [];
  const saveShots: typeof store.saveShots = (shots, ...rest) => {
    store.saveShots(shots, ...rest);
    order.push(...shots.map(({ range }) => range));
    onShots();
  };
  const file = { file: sourceFile(film), name: film.name, info: film.info };
  await analyseInPasses(file, { store: { ...store, saveShots } });
  return order;
}

test("an analysis begins where somebody is, goes elsewhere when they do, and finds what there is all the same", async () => {
  setWanted(db(), id, starts[5]! + 8);
  const order = (await analyse(() => setWanted(db(), id, 3))).map(({ start }) => start);
  // After what was finished by then comes what is waited for, and at last what was left.
  const left = order.indexOf(0);
  expect(left).toBeGreaterThan(0);
  expect(left).toBeLessThan(starts.length - 5);
  expect(order).toEqual([...starts.slice(5, 5 + left), ...starts.slice(0, 5), ...starts.slice(5 + left)]);

  expect(listShots(db(), id).map(({ start }) => start)).toEqual(starts);
  expect(listAnalysed(db(), id).map(({ start }) => start)).toEqual(starts);
  const { speech } = readActivity(db(), id, TIMES * ONCE)!;
  for (let offset = 0; offset < TIMES * ONCE; offset += ONCE) {
    for (const { start, end } of truth.speech.filter((said) => said.end <= STEP * ONCE)) {
      expect(Math.max(...speech.subarray(offset + start / STEP, offset + end / STEP))).toBeGreaterThan(128);
    }
  }
});
