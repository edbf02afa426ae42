import { execFileSync } from "node:child_process";
import { mkdtempSync, readdirSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { newVersion } from "~/core/version/film-state";
import { boxIou } from "~/core/geometry/box";
import { boxAt, type Track } from "~/core/subjects/tracking/track";
import { listChunks } from "~/db/analysis.server";
import { openDatabase } from "~/db/database.server";
import { findFilm, insertFilm } from "~/db/films.server";
import { findJob, insertJob, takeJob } from "~/db/jobs.server";
import { listShots } from "~/db/shots.server";
import { saveVersion, setHandKey } from "~/db/versions.server";
import { probeFilm } from "~/media/probe.server";
import type { FilmFile } from "~/media/film-file";
import { readTruth } from "../../demo/truth";
import { analyseAtOnce } from "~/pipelines/analyse-film.server";
import { followMarks } from "~/pipelines/follow-marks.server";
import { tracksOfShots } from "~/library/films/shot-tracks.server";
import { layVersion } from "~/library/versions/lay-version.server";
import type { NewWork } from "~/db/job-work";
import { runJob } from "./run-job.server";

const CLIP = "demo/clips/two-shots.mp4";
const truth = readTruth("demo/clips/two-shots.truth.json");
let film: FilmFile;
let folder: string;

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), "glad-pan-jobs-"));
  process.env.GLAD_PAN_DATA = folder;
  film = { file: CLIP, name: "two-shots.mp4", info: await probeFilm(CLIP) };
});
afterAll(() => rmSync(folder, { recursive: true }));

const toBox = (tuple: readonly number[]) => ({ x: tuple[0]!, y: tuple[1]!, width: tuple[2]!, height: tuple[3]! });

describe("an analysis", () => {
  test("finds the cut and the faces", async () => {
    const shares: number[] = [];
    const { shots, people } = await analyseAtOnce(film, { onProgress: (share) => shares.push(share) });
    expect(shares.at(-1)).toBe(1);
    expect(shots.map((shot) => shot.range)).toEqual(truth.shots.map(({ start, end }) => ({ start, end })));
    for (const real of truth.tracks.filter((track) => track.face)) {
      const faces = shots[real.shot]!.tracks.filter((track) => track.kind === "face");
      const overlaps = real.face!.flatMap((tuple, i) => {
        const found = faces.map((track) => boxAt(track, real.start + i)).find((box) => box !== null);
        return tuple && found ? [boxIou(toBox(tuple), found)] : [];
      });
      expect(overlaps.length).toBeGreaterThan(0.75 * real.face!.filter(Boolean).length);
      expect(overlaps.reduce((a, b) => a + b, 0) / overlaps.length).toBeGreaterThan(0.5);
    }
    const known = new Set(people.map(({ id }) => id));
    const figures = shots.flatMap(({ tracks }) => tracks.filter(({ kind }) => kind === "face" || kind === "person"));
    for (const { who } of figures) expect(known.has(who!)).toBe(true);
  });

  test("a mark is followed both ways through its shot", async () => {
    const kite = truth.tracks.find((track) => track.id === "running-kite")!;
    const { start, end } = truth.shots[kite.shot]!;
    const middle = kite.start + Math.floor(kite.boxes.length / 2);
    const marks = [{ frame: middle, box: toBox(kite.boxes[middle - kite.start]!) }];
    const track = await followMarks(film, { id: "mark", shot: { start, end }, marks });
    expect(track).toMatchObject({ id: "mark", kind: "mark", start });
    for (const by of [-12, -6, 0, 6, 12]) {
      const real = kite.boxes[middle + by - kite.start]!;
      expect(boxIou(boxAt(track, middle + by)!, toBox(real))).toBeGreaterThan(0.5);
    }
  });

  test("a mark is led by the track that it holds, and goes on alone from before that went astray", async () => {
    const kite = truth.tracks.find((track) => track.id === "running-kite")!;
    const { start, end } = truth.shots[kite.shot]!;
    const real = (frame: number) => toBox(kite.boxes[frame - kite.start]!);
    const middle = kite.start + Math.floor(kite.boxes.length / 2);
    // It is right up to some frames after the mark, goes off for a while, and ends.
    const astray = (frame: number) => ({ ...real(frame), x: real(frame).x - 25 * Math.max(0, frame - middle - 3) });
    const boxes = Array.from({ length: middle + 8 - kite.start }, (_, i) => astray(kite.start + i));
    const known: Track = { id: "kite", kind: "object", start: kite.start, boxes, confidence: 1 };
    const marks = [{ frame: middle, box: real(middle) }];
    const thing = { id: "mark", shot: { start, end }, marks };
    const track = await followMarks(film, thing, { tracks: [known] });
    expect(boxAt(track, middle - 10)!.x).toBeCloseTo(real(middle - 10).x, -1);
    for (const by of [6, 9, 12]) expect(boxIou(boxAt(track, middle + by)!, real(middle + by))).toBeGreaterThan(0.5);
  });
});

test("an analysis that was interrupted ends as if it had not been", async () => {
  const file = join(folder, "long.mp4");
  // What an analysis keeps is counted in seconds: six frames in each are enough.
  const fewer = ["-vf", "select='not(mod(n,5))'", "-r", "6", "-preset", "ultrafast"];
  const small = "tests/fixtures/two-shots.mp4";
  execFileSync("ffmpeg", ["-v", "error", "-stream_loop", "3", "-i", small, ...fewer, file]);
  const info = await probeFilm(file);
  const db = openDatabase(":memory:");
  const analyse = async (filmId: string, stopAt: number) => {
    const controller = new AbortController();
    const onProgress = (_step: string, share: number) => share >= stopAt && controller.abort();
    insertJob(db, { id: `${filmId}-${stopAt}`, filmId, kind: "analyse" });
    return runJob(db, findJob(db, `${filmId}-${stopAt}`)!, { onProgress, signal: controller.signal });
  };
  for (const id of ["whole", "stopped"]) insertFilm(db, { id, name: "long.mp4", file, info });
  await analyse("whole", 2);
  await expect(analyse("stopped", 0.4)).rejects.toThrow("cancelled");
  expect(listChunks(db, "stopped").length).toBeGreaterThan(0);
  await analyse("stopped", 2);
  const found = (filmId: string) => {
    const shots = listShots(db, filmId);
    return { ranges: shots.map(({ start, end }) => [start, end]), tracks: tracksOfShots(db, filmId, shots) };
  };
  expect(found("stopped")).toEqual(found("whole"));
  expect(listChunks(db, "stopped")).toEqual([]);
});

test("jobs make a proxy, an analysis and a checked render of what the editor has set", async () => {
  const db = openDatabase(":memory:");
  const small = resolve("tests/fixtures/two-shots.mp4");
  insertFilm(db, { id: "film", name: "two-shots.mp4", file: small, info: await probeFilm(small) });
  saveVersion(db, "film", newVersion({ id: "square", name: "Square", width: 120, height: 120 }));
  const options = { onProgress: () => {}, signal: new AbortController().signal };
  const run = async (work: NewWork) => {
    const id = insertJob(db, { filmId: "film", ...work });
    takeJob(db);
    return runJob(db, findJob(db, id)!, options);
  };
  await run({ kind: "proxy" });
  expect(readdirSync(join(folder, "films/film")).sort()).toEqual(["poster.jpg", "proxy"]);
  expect(await run({ kind: "analyse" })).toEqual({ shots: 2 });
  expect(listShots(db, "film").map(({ start, end }) => [start, end])).toEqual([
    [0, 45],
    [45, 99],
  ]);
  setHandKey(db, "square", { pane: 0, frame: 20, x: 225, y: 90, height: 180, easing: null });
  const { laid } = layVersion(db, findFilm(db, "film")!, "square");
  expect(laid.shots.map(({ set }) => set.handKeys.length)).toEqual([1, 0]);
  expect(await run({ kind: "render", asked: { versionId: "square", fileName: "square.mp4" } })).toMatchObject({
    width: 120,
    height: 120,
    frames: 99,
    rate: "30",
  });
  expect(readFileSync(join(folder, "films/film/exports/square.mp4")).length).toBeGreaterThan(5000);
  await expect(run({ kind: "render", asked: { versionId: "gone", fileName: "x.mp4" } })).rejects.toThrow(
    "this version no longer exists",
  );
});
