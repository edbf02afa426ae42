/** A film's file replaced by a new export: real files, a real database, and the job run by itself. */
import { execFileSync } from "node:child_process";
import { copyFileSync, existsSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterEach, beforeEach, expect, test } from "@jest/globals";
import { freshShot } from "~/core/shots/shot";
import { hardTransition } from "~/core/shots/transition";
import { saveTracks } from "~/db/analysis.server";
import { edit, historyOf } from "~/db/edits.server";
import { loadState } from "~/db/film-state.server";
import { findFilm } from "~/db/films.server";
import { finishJob, listJobs, takeJob } from "~/db/jobs.server";
import { deleteShot, listShots, saveShot } from "~/db/shots.server";
import { listHandKeys, listVersions } from "~/db/versions.server";
import { addFilm } from "../films/films.server";
import {
  beginReplacement,
  giveUpReplacement,
  purgeReplaced,
  putEarlierBack,
  replacementOf,
  replaceSource,
} from "./replace-source.server";
import { runJob } from "~/jobs/run-job.server";
import { db, sourceFile, useDatabase } from "~/db/workplace.server";

let folder: string;
let id: string;
const film = () => findFilm(db(), id)!;
const key = (frame: number) => ({ pane: 0, frame, x: 160, y: 90, height: 180, easing: null });

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), "glad-pan-replace-"));
  process.env.GLAD_PAN_DATA = join(folder, "data");
  const clip = join(folder, "two shots.mp4");
  copyFileSync("tests/fixtures/two-shots.mp4", clip);
  id = await addFilm(clip, "two shots.mp4", "copy");
  deleteShot(db(), `${id}.0`);
  saveShot(db(), id, { ...freshShot(`${id}.0`, { start: 0, end: 45 }, null), name: "Nela" });
  saveShot(db(), id, freshShot(`${id}.45`, { start: 45, end: 99 }, hardTransition(45, "cut")));
  for (const [start, end] of [
    [0, 45],
    [45, 99],
  ] as const)
    saveTracks(db(), id, { start, end }, []);
  for (const job of listJobs(db(), id)) finishJob(db(), job.id, { state: "done" });
  const versionId = listVersions(db(), id)[0]!.id;
  for (const frame of [10, 30, 60]) edit(db(), id, film().revision, { type: "set-key", versionId, key: key(frame) });
});
afterEach(() => {
  useDatabase(null);
  rmSync(folder, { recursive: true });
});

/** A new export: twelve black frames first, the first shot without its first twenty frames, and another grade. */
function newExport(name: string): string {
  const file = join(folder, name);
  const graph =
    "[0:v]trim=start_frame=20,setpts=PTS-STARTPTS,eq=brightness=0.06:contrast=0.9[film];" +
    "color=black:s=320x180:r=30,trim=end_frame=12,format=yuv420p[head];[head][film]concat=n=2:v=1[out]";
  const encode = ["-map", "[out]", "-c:v", "libx264", "-preset", "ultrafast", "-crf", "26", file];
  execFileSync("ffmpeg", [
    "-y",
    "-v",
    "error",
    "-i",
    "tests/fixtures/two-shots.mp4",
    "-filter_complex",
    graph,
    ...encode,
  ]);
  return file;
}

async function compare(): Promise<void> {
  const job = takeJob(db())!;
  const result = await runJob(db(), job, { onProgress: () => {}, signal: new AbortController().signal });
  finishJob(db(), job.id, { state: "done", result });
}

const keys = () => listHandKeys(db(), listVersions(db(), id)[0]!.id).map(({ frame }) => frame);

test("a new export takes the file's place with all work, and the earlier one is put back with all that was", async () => {
  const before = loadState(db(), film());
  const history = historyOf(db(), film());
  await beginReplacement(film(), newExport("graded.mp4"), "graded.mp4", "move");
  await compare();
  const { found } = replacementOf(film());
  expect(found).toMatchObject({ name: "graded.mp4", lost: { keys: 1, marks: 0 }, newFrames: 12, isReshaped: false });
  expect(found!.shots.map(({ range, number }) => [number, range])).toEqual([
    [1, { start: 12, end: 37 }],
    [2, { start: 37, end: 91 }],
  ]);
  // Nothing has changed so far.
  expect(loadState(db(), film())).toEqual(before);

  await replaceSource(film());
  expect(film().info.frames).toBe(91);
  expect(sourceFile(film())).toMatch(/source-[\w-]+\.mp4$/);
  expect(listShots(db(), id).map(({ start, end, name }) => [start, end, name])).toEqual([
    [0, 12, null],
    [12, 37, "Nela"],
    [37, 91, null],
  ]);
  // The first shot hardly moves: there, a frame is as like as the one beside it.
  expect([Math.abs(keys()[0]! - 22) <= 1, keys()[1]]).toEqual([true, 52]);
  expect(listJobs(db(), id).map(({ kind, state }) => `${kind} ${state}`)).toEqual(["proxy queued", "analyse queued"]);
  expect(historyOf(db(), film())).toEqual({ undo: "Replaced the film's file", redo: null });
  const replacing = sourceFile(film());

  await putEarlierBack(film());
  expect(loadState(db(), film())).toEqual(before);
  expect(historyOf(db(), film())).toEqual(history);
  expect([sourceFile(film()).endsWith("source.mp4"), existsSync(replacing)]).toEqual([true, false]);
  await expect(putEarlierBack(film())).rejects.toThrow("was not replaced");
});

test("a comparison is given up, and goes stale when the shots change; an earlier file goes after a while", async () => {
  await beginReplacement(film(), newExport("a.mp4"), "a.mp4", "link");
  await giveUpReplacement(film());
  expect(existsSync(join(folder, "a.mp4"))).toBe(true);
  expect(replacementOf(film()).job).toBeNull();
  await expect(replaceSource(film())).rejects.toThrow("no new file to replace");
  await expect(beginReplacement(film(), "package.json", "package.json", "link")).rejects.toThrow("package.json");

  await beginReplacement(film(), join(folder, "a.mp4"), "a.mp4", "link");
  await compare();
  edit(db(), id, film().revision, { type: "split-shot", frame: 70, kind: "switch" });
  await expect(replaceSource(film())).rejects.toThrow("compare it again");
  await beginReplacement(film(), join(folder, "a.mp4"), "a.mp4", "link");
  await compare();
  const earlier = sourceFile(film());
  await replaceSource(film());
  await purgeReplaced(Date.now() + 31 * 24 * 60 * 60 * 1000);
  expect([existsSync(earlier), existsSync(sourceFile(film())), replacementOf(film()).hasEarlier]).toEqual([
    false,
    true,
    false,
  ]);
});
