/** What is done to films as a whole: the library's jobs on real folders and a real database, without a queue. */
import { USUAL_CAPTIONS } from "~/core/captions/caption-settings";
import {
  copyFileSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync,
} from "node:fs";
import { writeFile } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { createCanvas } from "@napi-rs/canvas";
import { nameOfLayer, newPicture, newText } from "~/core/composition/layers/layer";
import { addDemoFilm } from "./films/demo-film.server";
import { findFont, findPicture, keepFont, keepPicture } from "./own/own-files.server";
import { findMoving, keepFilm, lightCopyOf } from "./own/own-moving.server";
import { afterEach, beforeEach, describe, expect, test } from "@jest/globals";
import { USUAL_OUTPUT } from "~/core/formats/output-settings";
import { USUAL_LIMITS } from "~/core/checks/check-settings";
import { packActivity } from "~/core/activity/activity";
import type { Project } from "~/core/formats/project";
import { freshShot } from "~/core/shots/shot";
import { hardTransition } from "~/core/shots/transition";
import type { Track } from "~/core/subjects/tracking/track";
import { readActivity, saveActivity } from "~/db/activity.server";
import { listAnalysed, readTracks, saveTracks, saveTransitions, saveUndecoded } from "~/db/analysis.server";
import { loadState } from "~/db/film-state.server";
import { findFilm, listFilms, setDeletedAt } from "~/db/films.server";
import { savePreset } from "~/db/presets.server";
import { finishJob, insertJob, listJobs } from "~/db/jobs.server";
import { putMark, saveMarkTrack } from "~/db/marks.server";
import { projectOf } from "~/db/projects.server";
import { changePerson, savePeople } from "~/db/people.server";
import { saveShot } from "~/db/shots.server";
import { listVersions, saveVersion, setHandKey, setShotInVersion } from "~/db/versions.server";
import { zipOf } from "~/disk/zip.server";
import { clearLightCopy, spaceOf } from "./films/film-space.server";
import { addFilm, linkFilm } from "./films/films.server";
import {
  bringBack,
  clearCopy,
  clearExports,
  deleteFilmForNow,
  purgeDeleted,
  renameFilm,
} from "./films/keep-films.server";
import { duplicateFilm } from "./projects/copy-film.server";
import { saveProject } from "./projects/save-project.server";
import { takeIn } from "./projects/take-in.server";
import {
  db,
  exportsFolder,
  filmFolder,
  filmsFolder,
  isMissing,
  proxyFolder,
  sourceFile,
  useDatabase,
} from "~/db/workplace.server";

const DAY_MS = 24 * 60 * 60 * 1000;
let folder: string;
let clip: string;

beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), "glad-pan-library-"));
  process.env.GLAD_PAN_DATA = join(folder, "data");
  clip = join(folder, "two shots.mp4");
  copyFileSync("tests/fixtures/two-shots.mp4", clip);
});
afterEach(() => {
  useDatabase(null);
  rmSync(folder, { recursive: true });
});

const FONT = "node_modules/@fontsource-variable/inter/files/inter-latin-wght-normal.woff2";
const film = (id: string) => findFilm(db(), id)!;
const kinds = (id: string) => listJobs(db(), id).map(({ kind, state }) => `${kind} ${state}`);

const TRACK: Track = {
  id: "face-1",
  kind: "face",
  start: 0,
  confidence: 0.9,
  who: "p1",
  boxes: Array.from({ length: 45 }, (_, i) => ({ x: 75 + i, y: 50, width: 23, height: 25 })),
};

/** Gives a film what an analysis finds and an editor sets. */
function workOn(id: string): void {
  const [tall] = listVersions(db(), id);
  saveShot(db(), id, freshShot(`${id}.0`, { start: 0, end: 45 }, null));
  saveShot(db(), id, { ...freshShot(`${id}.45`, { start: 45, end: 99 }, hardTransition(45, "cut")), name: "Kite" });
  saveVersion(db(), id, { ...tall!, trim: { in: 5, out: null, leftOut: [{ start: 20, end: 30 }] }, limitSeconds: 15 });
  setShotInVersion(db(), tall!.id, `${id}.45`, { calm: 80, follow: { kind: "track", trackId: "mark-m" } });
  setHandKey(db(), tall!.id, { pane: 0, frame: 10, x: 160, y: 90, height: 180, easing: "hold" });
  savePeople(db(), id, [{ id: "p1", number: 0, signature: [1, 2], seen: 3 }]);
  changePerson(db(), id, { id: "p1", name: "Nela", mergedInto: null });
  saveTransitions(db(), id, { candidates: [{ transition: hardTransition(45, "cut"), strength: 0.9 }], settled: 99 });
  saveTracks(db(), id, { start: 0, end: 45 }, [TRACK]);
  saveTracks(db(), id, { start: 45, end: 99 }, []);
  putMark(db(), id, "m", 50, { x: 10, y: 20, width: 30, height: 40 });
  saveMarkTrack(db(), id, "basis", { ...TRACK, id: "mark-m", kind: "mark" });
  saveUndecoded(db(), id, [{ start: 98, end: 99 }]);
  const byte = (value: number) => new Uint8Array(99).fill(value);
  const activity = { light: byte(90), contrast: byte(50), change: byte(1), speech: byte(2) };
  saveActivity(db(), id, { start: 0, end: 99 }, activity);
  for (const job of listJobs(db(), id)) finishJob(db(), job.id, { state: "done" });
}

/** All that is stored of a film, without the ids that are its own. */
function stored(id: string) {
  const { versions, shots, ...state } = loadState(db(), film(id));
  return {
    ...state,
    film: { ...state.film, id: "" },
    shots: shots.map((shot) => ({ ...shot, id: shot.start })),
    versions: versions.map((version) => ({
      ...version,
      id: "",
      shots: [...version.shots].map(([shotId, says]) => [shots.find((shot) => shot.id === shotId)!.start, says]),
    })),
    tracks: listAnalysed(db(), id).map((range) => readTracks(db(), id, range)),
    activity: packActivity(readActivity(db(), id, film(id).info.frames)!),
  };
}

describe("a film", () => {
  test("is renamed, in its folder as well", async () => {
    const id = await addFilm(clip, "two shots.mp4", "copy");
    await renameFilm(film(id), "Kite morning");
    expect(film(id).name).toBe("Kite morning");
    const note = JSON.parse(readFileSync(join(filmFolder(id), "film.json"), "utf8")) as unknown;
    expect(note).toEqual({ name: "Kite morning" });
  });

  test("is deleted for now: what can be made again goes, the rest is brought back", async () => {
    const id = await addFilm(clip, "two shots.mp4", "copy");
    workOn(id);
    const [, analysis] = listJobs(db(), id);
    mkdirSync(exportsFolder(id), { recursive: true });
    writeFileSync(join(exportsFolder(id), "tall.mp4"), "x".repeat(1000));
    insertJob(db(), { id: "r", filmId: id, kind: "render", asked: { versionId: "v", fileName: "tall.mp4" } });
    finishJob(db(), "r", { state: "done", result: { width: 1 } });
    expect(await spaceOf(film(id))).toMatchObject({ source: statSync(clip).size, renders: 1000 });

    await deleteFilmForNow(film(id));
    expect(await spaceOf(film(id))).toEqual({ source: statSync(clip).size, proxy: 0, renders: 0 });
    expect(film(id).deletedAt).not.toBeNull();
    expect(kinds(id)).toEqual(["analyse done", "render cancelled"]);
    expect(listJobs(db(), id)[0]!.id).toBe(analysis!.id);
    bringBack(film(id));
    expect(film(id).deletedAt).toBeNull();
    expect(stored(id).shots).toHaveLength(2);
  });

  test("that was deleted long ago goes for good; a linked original stays", async () => {
    const [kept, gone] = [await addFilm(clip, "two shots.mp4", "copy"), await linkFilm(clip)];
    await deleteFilmForNow(film(kept));
    setDeletedAt(db(), gone, Date.now() - 31 * DAY_MS);
    await purgeDeleted();
    expect(listFilms(db()).map(({ id }) => id)).toEqual([kept]);
    expect([existsSync(filmFolder(gone)), existsSync(clip)]).toEqual([false, true]);
    await purgeDeleted(Date.now() + 31 * DAY_MS);
    expect(listFilms(db())).toEqual([]);
  });

  test("gives back the space of its proxy and its renders, which can be made again", async () => {
    const id = await addFilm(clip, "two shots.mp4", "copy");
    workOn(id);
    insertJob(db(), { id: "r", filmId: id, kind: "render", asked: { versionId: "v", fileName: "tall.mp4" } });
    finishJob(db(), "r", { state: "done", result: { width: 1 } });
    mkdirSync(proxyFolder(id), { recursive: true });
    writeFileSync(join(proxyFolder(id), "0.mp4"), "x");
    await clearCopy(film(id));
    await clearExports(film(id));
    expect(existsSync(proxyFolder(id))).toBe(false);
    expect(kinds(id)).toEqual(["analyse done", "render cancelled"]);
    expect(listJobs(db(), id).at(-1)).toMatchObject({
      work: { result: null },
      error: expect.stringContaining("cleared"),
    });
    await clearLightCopy(id);
  });

  test("begins with the versions of the preset that is picked, and with one for phones where that is gone", async () => {
    const BARE = {
      layers: [],
      safeArea: null,
      captions: USUAL_CAPTIONS,
      checkLimits: USUAL_LIMITS,
      reviewedFlags: [],
      output: USUAL_OUTPUT,
    };
    const versions = [
      { name: "Reel", width: 1080, height: 1920, limitSeconds: 60, usual: { calm: 70 }, ...BARE },
      { name: "Feed", width: 1080, height: 1350, limitSeconds: null, usual: {}, ...BARE },
    ];
    savePreset(db(), { id: "s", name: "Festival", versions });
    const id = await addFilm(clip, "two shots.mp4", "copy", "s");
    expect(listVersions(db(), id)).toMatchObject(versions);
    expect(listVersions(db(), await addFilm(clip, "two shots.mp4", "copy", "gone"))).toHaveLength(1);
    expect(() => savePreset(db(), { id: "t", name: "FESTIVAL", versions })).toThrow("already");
  });
});

test("the demo film comes with its title shown whole and a line above it, once", async () => {
  for (let i = 0; i < 2; i++)
    await addDemoFilm("demo/ferrow-kite-day.mp4", "demo/ferrow-kite-day.vtt", "Ferrow Kite Day.mp4");
  const [only, ...others] = listFilms(db());
  const { shots, versions } = loadState(db(), only!);
  expect([others.length, shots.map(({ start }) => start)]).toEqual([0, [0, 84]]);
  expect(versions[0]!.shots.get(shots[0]!.id)?.layout).toMatchObject({ kind: "whole" });
  expect(versions[0]!.layers.map(nameOfLayer)).toEqual(["text “What the wind brings”"]);
});

describe("work on a film", () => {
  test("is duplicated with the film, which takes no more space, and is worked on apart from it", async () => {
    const id = await addFilm(clip, "two shots.mp4", "copy");
    await expect(duplicateFilm(film(id))).rejects.toThrow("still being analysed");
    workOn(id);
    const copy = await duplicateFilm(film(id));
    expect(film(copy).name).toBe("two shots copy.mp4");
    expect(stored(copy)).toEqual(stored(id));
    expect(statSync(sourceFile(film(copy))).ino).toBe(statSync(sourceFile(film(id))).ino);
    expect(kinds(copy)).toEqual(["proxy queued", "analyse done"]);
    await deleteFilmForNow(film(id));
    await purgeDeleted(Date.now() + 31 * DAY_MS);
    expect(isMissing(film(copy))).toBe(false);
    expect(film(await duplicateFilm(film(copy))).name).toBe("two shots copy copy.mp4");
  });

  async function saved(id: string, withSource: boolean): Promise<string> {
    const { name, stream } = await saveProject(film(id), withSource);
    const file = join(folder, `${withSource ? "with " : ""}${name}`);
    await writeFile(file, stream);
    return file;
  }

  test("is saved with the film and opened elsewhere", async () => {
    const id = await addFilm(clip, "two shots.mp4", "copy");
    workOn(id);
    const logo = await keepPicture(createCanvas(8, 6).toBuffer("image/png"), "logo.png");
    const [tall] = listVersions(db(), id);
    const font = await keepFont(readFileSync(FONT), "house.woff2");
    const safeArea = { left: 0, top: 0.1, right: 0, foot: 0.2 };
    // A film of the library, which stays when that is deleted.
    const placed = await keepFilm(film(await addFilm(clip, "kite.mp4", "copy")));
    const layers = [{ ...newText("t", "Kites"), font }, newPicture("p", logo), newPicture("q", placed)];
    saveVersion(db(), id, { ...tall!, layers, safeArea });
    const before = stored(id);
    const file = await saved(id, true);
    expect(file).toMatch(/with two shots\.gladpan$/);
    useDatabase(null);
    process.env.GLAD_PAN_DATA = join(folder, "other machine");
    const opened = await takeIn(file, "with two shots.gladpan", "link");
    expect(stored(opened)).toEqual(before);
    expect(readFileSync(sourceFile(film(opened)))).toEqual(readFileSync(clip));
    const kept = [findPicture(logo.id), findFont(font.id), findMoving(placed.id)];
    expect(kept.map((each) => each?.file.includes("other machine"))).toEqual([true, true, true]);
    expect(readFileSync(findMoving(placed.id)!.file)).toEqual(readFileSync(clip));
    expect((await lightCopyOf(placed.id))?.type).toBe("video/mp4");
    expect(await lightCopyOf("0".repeat(32))).toBeNull();
  });

  test("is saved without the film, and put on its file when that comes, whatever it is called there", async () => {
    const id = await addFilm(clip, "two shots.mp4", "copy");
    workOn(id);
    const file = await saved(id, false);
    // Where the film is, its file is used.
    expect(isMissing(film(await takeIn(file, "two shots.gladpan", "link")))).toBe(false);

    useDatabase(null);
    process.env.GLAD_PAN_DATA = join(folder, "other machine");
    const opened = await takeIn(file, "two shots.gladpan", "link");
    expect([isMissing(film(opened)), kinds(opened)]).toEqual([true, ["analyse done"]]);
    const other = await takeIn("tests/fixtures/upright-25.mp4", "upright-25.mp4", "link");
    expect([other === opened, isMissing(film(opened))]).toEqual([false, true]);
    const renamed = join(folder, "renamed.mp4");
    copyFileSync(clip, renamed);
    expect(await takeIn(renamed, "renamed.mp4", "link")).toBe(opened);
    expect([sourceFile(film(opened)), kinds(opened)]).toEqual([renamed, ["analyse done", "proxy queued"]]);
  });

  test("that is none is refused with its name, and nothing is left of it", async () => {
    const text = join(folder, "notes.gladpan");
    writeFileSync(text, "not an archive");
    await expect(takeIn(text, "notes.gladpan", "link")).rejects.toThrow("notes.gladpan: this file is damaged");
    const archive = async (name: string, json: string) => {
      await writeFile(join(folder, name), zipOf([{ name: "project.json", text: json }]));
      return takeIn(join(folder, name), name, "link");
    };
    await expect(archive("a.gladpan", "{")).rejects.toThrow("a.gladpan: its project.json is not JSON");
    await expect(archive("b.gladpan", '{"format": "glad-pan/project"}')).rejects.toThrow("makes no sense: version");
    await writeFile(join(folder, "c.gladpan"), zipOf([{ name: "other.txt", text: "" }]));
    await expect(takeIn(join(folder, "c.gladpan"), "c.gladpan", "link")).rejects.toThrow("no Glad Pan project");
    expect(listFilms(db())).toEqual([]);
  });

  test("that makes no sense is refused as well, with its film", async () => {
    const id = await addFilm(clip, "two shots.mp4", "copy");
    workOn(id);
    const project = projectOf(db(), film(id), "f");
    const opened = async (work: Project, source: string) => {
      const file = join(folder, "saved.gladpan");
      const text = JSON.stringify(work);
      await writeFile(
        file,
        zipOf([
          { name: "project.json", text },
          { name: "source.mp4", file: source },
        ]),
      );
      return takeIn(file, "saved.gladpan", "link");
    };
    const gap = { ...project, shots: project.shots.slice(1) };
    await expect(opened(gap, clip)).rejects.toThrow("not consistent: the shots leave a gap");
    await expect(opened(project, "tests/fixtures/upright-25.mp4")).rejects.toThrow("not the one it was made for");
    await expect(opened(project, "package.json")).rejects.toThrow("two shots.mp4");
    expect(listFilms(db())).toHaveLength(1);
    expect(readdirSync(filmsFolder())).toEqual([id]);
  });
});
