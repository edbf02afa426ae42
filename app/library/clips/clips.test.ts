/** Films of clips: real files, a real database, and the job run by itself. */
import { copyFileSync, existsSync, mkdtempSync, readdirSync, rmSync } from "node:fs";
import { writeFile } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { listAnalysed, readTracks, saveTracks } from "~/db/analysis.server";
import { listClips } from "~/db/clips.server";
import { edit, historyOf } from "~/db/edits.server";
import { loadState } from "~/db/film-state.server";
import { findFilm } from "~/db/films.server";
import { finishJob, listJobs, takeJob } from "~/db/jobs.server";
import { projectOf } from "~/db/projects.server";
import { zipOf } from "~/disk/zip.server";
import { listHandKeys, listVersions } from "~/db/versions.server";
import { decodeFrames } from "~/media/decode.server";
import { probeFilm } from "~/media/probe.server";
import { arrangeClips, type ClipChoice, clipsOf, joinFilms } from "./clips.server";
import { addFilm } from "../films/films.server";
import { duplicateFilm } from "../projects/copy-film.server";
import { openProject } from "../projects/open-project.server";
import { saveProject } from "../projects/save-project.server";
import { putEarlierBack } from "../replace/replace-source.server";
import { runJob } from "~/jobs/run-job.server";
import { db, filmFolder, sourceFile, useDatabase } from "~/db/workplace.server";

let folder: string;
let wide: string;
let upright: string;
let id: string;
const film = (filmId = id) => findFilm(db(), filmId)!;
const state = () => loadState(db(), film());
const version = () => listVersions(db(), id)[0]!;
const keys = () => listHandKeys(db(), version().id).map(({ frame, x }) => [frame, x]);
const same = (clipId: string): ClipChoice => ({ clipId, filmId: null });

async function add(name: string): Promise<string> {
  const file = join(folder, name);
  copyFileSync(join("tests/fixtures", name), file);
  return addFilm(file, name, "move");
}

/** Brings the clips to one grid, as a worker does; nothing else is done meanwhile. */
async function prepare(): Promise<void> {
  const job = takeJob(db())!;
  expect(job).toMatchObject({ kind: "join", filmId: id });
  expect(takeJob(db())).toBeNull();
  await runJob(db(), job, { onProgress: () => {}, signal: new AbortController().signal });
  finishJob(db(), job.id, { state: "done" });
}

/** Luma at a place of a frame of a film. */
async function lumaAt(source: { file: string; name: string }, frame: number, x: number, y: number): Promise<number> {
  const info = await probeFilm(source.file, source.name);
  const range = { start: frame, end: frame + 1 };
  for await (const data of decodeFrames({ ...source, info }, { range })) return data[y * info.picture.width + x]!;
  throw new Error("no frame");
}

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), "glad-pan-clips-"));
  process.env.GLAD_PAN_DATA = join(folder, "data");
  wide = await add("two-shots.mp4");
  upright = await add("upright-25.mp4");
  for (const each of [wide, upright])
    for (const job of listJobs(db(), each)) finishJob(db(), job.id, { state: "done" });
  saveTracks(db(), wide, { start: 0, end: film(wide).info.frames }, [
    { id: "s0-face-1", kind: "face", start: 4, confidence: 0.9, boxes: [{ x: 100, y: 60, width: 40, height: 50 }] },
  ]);
  const versionId = listVersions(db(), wide)[0]!.id;
  const key = { pane: 0, frame: 60, x: 160, y: 90, height: 180, easing: null };
  edit(db(), wide, film(wide).revision, { type: "set-key", versionId, key });
  // The other one is worked on as well: it is cut, and framed.
  const { id: otherVersion } = listVersions(db(), upright)[0]!;
  const split = { type: "split-shot", frame: 25, kind: "cut" } as const;
  edit(db(), upright, film(upright).revision, split);
  const upper = { pane: 0, frame: 30, x: 90, y: 125, height: 225, easing: null };
  edit(db(), upright, film(upright).revision, { type: "set-key", versionId: otherVersion, key: upper });
  const follow = { kind: "track", trackId: "s0-face-1" } as const;
  const shotIds = [loadState(db(), film(wide)).shots[0]!.id];
  edit(db(), wide, film(wide).revision, { type: "change-shots", shotIds, change: { follow } });
  id = await joinFilms([wide, upright], "A day out");
});
afterAll(() => {
  useDatabase(null);
  rmSync(folder, { recursive: true });
});

test("two films become one, with the work on the first, and stay as they are", async () => {
  const [first, second] = [film(wide).info, film(upright).info];
  const { info, name } = film();
  expect(name).toBe("A day out");
  expect(info.picture).toEqual({
    width: Math.max(first.picture.width, second.picture.width),
    height: Math.max(first.picture.height, second.picture.height),
  });
  expect(state().clips.map(({ name, start }) => [name, start])).toEqual([
    ["two-shots.mp4", 0],
    ["upright-25.mp4", first.frames],
  ]);
  const dy = (info.picture.height - first.picture.height) / 2;
  const dx = (info.picture.width - second.picture.width) / 2;
  // The work on the second comes along, at the rate of the film.
  expect(keys()).toEqual([
    [60, 160],
    [first.frames + 36, 90 + dx],
  ]);
  expect(state().shots.map(({ start }) => start)).toEqual([0, first.frames, first.frames + 30]);
  const [track] = readTracks(db(), id, { start: 0, end: first.frames });
  expect(track!.places[0]).toEqual([1000, 600 + 10 * dy, 400, 500]);
  expect(state().shots[0]!.follow).toEqual({ kind: "track", trackId: "s0-face-1" });
  // What lies around a clip is not its picture.
  expect(state().shots[1]!.active).toEqual(state().clips[1]!.area);
  expect(historyOf(db(), film()).undo).toBeNull();
  expect(existsSync(sourceFile(film(wide)))).toBe(true);
});

test("its clips are read as one film, each in its place, with every pixel and every frame", async () => {
  await prepare();
  const { frames, picture, rate } = film().info;
  const read = await probeFilm(sourceFile(film()));
  expect(read).toMatchObject({ frames, picture, rate, grid: { even: true, origin: 0 } });
  const [, clip] = state().clips;
  const joined = { file: sourceFile(film()), name: "joined" };
  const original = { file: sourceFile(film(upright)), name: "upright" };
  for (const [x, y] of [
    [50, 75],
    [90, 160],
    [125, 225],
  ] as const) {
    const [there, here] = [
      await lumaAt(joined, clip!.start, x + clip!.area.x, y + clip!.area.y),
      await lumaAt(original, 0, x, y),
    ];
    expect(Math.abs(there - here)).toBeLessThan(6);
  }
  expect(await lumaAt(joined, clip!.start, 1, 175)).toBe(16);
  expect(await lumaAt(joined, clip!.start - 1, 1, 175)).toBeGreaterThan(16);
});

test("in another order all work and all that was found goes along, and undo puts it back", async () => {
  const before = {
    keys: keys(),
    clips: state().clips,
    parts: readdirSync(filmFolder(id)).filter((f) => f.includes("part")),
  };
  const [a, b] = before.clips.map((clip) => clip.id);
  const trim = edit(db(), id, film().revision, { type: "trim-clip", clipId: a!, in: 10, out: 90 });
  expect(trim).toBeTruthy();
  await arrangeClips(film(), [same(b!), same(a!)]);
  const shift = state().clips[1]!.start;
  const back = state().clips[0]!.end - before.clips[1]!.end;
  expect(state().clips.map((clip) => clip.id)).toEqual([b, a]);
  expect(state().clips[1]).toMatchObject({ in: 10, out: 90 });
  const [first, second] = before.keys;
  expect(keys()).toEqual([
    [second![0]! + back, second![1]],
    [first![0]! + shift, first![1]],
  ]);
  expect(listAnalysed(db(), id).map(({ start }) => start)).toEqual([shift]);
  const moved = readTracks(db(), id, listAnalysed(db(), id)[0]!)[0]!;
  expect(moved).toMatchObject({ id: `s${shift}-face-1`, start: 4 + shift });
  expect(state().shots.find(({ start }) => start === shift)!.follow).toEqual({ kind: "track", trackId: moved.id });
  // Nothing has to be encoded for that.
  await prepare();
  expect(readdirSync(filmFolder(id)).filter((f) => f.includes("part"))).toEqual(before.parts);

  await putEarlierBack(film());
  expect(keys()).toEqual(before.keys);
  expect(state().clips.map((clip) => clip.id)).toEqual([a, b]);
  expect(historyOf(db(), film()).undo).toContain("in and out points of clip 1");
  await prepare();
});

test("a clip is taken out, another put in its place, and one added, and the work on the others stays", async () => {
  const [a, b] = state().clips.map((clip) => clip.id);
  await arrangeClips(film(), [same(a!), { clipId: b!, filmId: wide }, { clipId: null, filmId: upright }]);
  expect(state().clips.map(({ name }) => name)).toEqual(["two-shots.mp4", "two-shots.mp4", "upright-25.mp4"]);
  expect(state().clips.at(-1)!.end).toBe(film().info.frames);
  await prepare();
  await arrangeClips(film(), [same(a!)]);
  expect(film().info.picture).toEqual(film(wide).info.picture);
  expect(keys()).toEqual([[60, 160]]);
  expect(state().shots[0]!.active).toBeNull();
  await prepare();
  expect((await probeFilm(sourceFile(film()))).frames).toBe(film(wide).info.frames);
});

test("it is duplicated with its parts, and saved as one file with the work on it", async () => {
  const copy = await duplicateFilm(film());
  expect((await probeFilm(sourceFile(film(copy)))).frames).toBe(film().info.frames);
  expect(listClips(db(), copy)[0]!.file).toContain(copy);

  await expect(saveProject(film(), false)).rejects.toThrow("save the project with its film");
  const { name, stream } = await saveProject(film(), true);
  const file = join(folder, name);
  await writeFile(file, stream);
  const opened = film(await openProject(file, name));
  expect(opened.info.frames).toBe(film().info.frames);
  expect(listClips(db(), opened.id)).toEqual([]);
  expect(listHandKeys(db(), listVersions(db(), opened.id)[0]!.id)).toMatchObject([{ frame: 60, x: 160 }]);
  expect(readdirSync(filmFolder(id)).filter((entry) => entry.startsWith("joined"))).toEqual([]);

  // Files that somebody else's work names are not read.
  const named = join(folder, "named.gladpan");
  const text = JSON.stringify(projectOf(db(), film(), "nobody's"));
  expect(text).toContain("source.mp4");
  await writeFile(named, zipOf([{ name: "project.json", text }]));
  expect(listClips(db(), await openProject(named, "named.gladpan"))).toEqual([]);
});

test("what makes no sense is refused, and nothing is changed", async () => {
  const clips = clipsOf(film()).map((clip) => clip.id);
  const refused = (choices: ClipChoice[]) => expect(arrangeClips(film(), choices)).rejects;
  await refused([]).toThrow("at least one");
  await refused([same("nobody")]).toThrow("no longer in the film");
  await refused([same(clips[0]!), same(clips[0]!)]).toThrow("once");
  await refused([{ clipId: null, filmId: id }]).toThrow("made of clips itself");
  await expect(joinFilms([wide], "One")).rejects.toThrow("two films or more");
  expect(listClips(db(), id)).toHaveLength(1);
});
