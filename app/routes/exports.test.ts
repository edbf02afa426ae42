import { afterEach, beforeEach, describe, expect, test } from "@jest/globals";
import { existsSync, mkdirSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { get, post } from "../../tests/support/route-answers";
import { twoShotFilm } from "../../tests/support/two-shot-film";
import type { ExportView } from "~/core/film-status";
import { USUAL_OUTPUT } from "~/core/formats/output-settings";
import { saveTracks } from "~/db/analysis.server";
import type { Db } from "~/db/database.server";
import { findFilm } from "~/db/films.server";
import { finishJob, listRenders, takeJob } from "~/db/jobs.server";
import { listVersions, saveVersion } from "~/db/versions.server";
import { exportPrint } from "~/jobs/export-state.server";
import { findExportFile } from "~/jobs/exports.server";
import { useDatabase } from "~/jobs/workplace.server";
import { loadState } from "~/db/film-state.server";
import { action as exportsAction, loader as exports } from "./exports";
import { loader as versionFile } from "./version-files";

let db: Db;
let folder = "";
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), "glad-pan-exports-"));
  process.env.GLAD_PAN_DATA = join(folder, "data");
  db = twoShotFilm();
  useDatabase(db);
  const { frames } = findFilm(db, "film")!.info;
  saveTracks(db, "film", { start: 0, end: frames }, []);
});
afterEach(() => {
  useDatabase(null);
  delete process.env.GLAD_PAN_OUT;
  delete process.env.GLAD_PAN_DATA;
  rmSync(folder, { recursive: true, force: true });
});

const send = (fields: Record<string, string>) => post(exportsAction, {}, new URLSearchParams(fields));
const ask = (ids: string[] = ["tall"]) => send({ intent: "export", chosen: JSON.stringify({ film: ids }) });
const listed = async () => (await get(exports, {})).data as { queue: ExportView[]; files: ExportView[] };
const setOutput = (change: Partial<typeof USUAL_OUTPUT>) =>
  saveVersion(db, "film", { ...listVersions(db, "film")[0]!, output: { ...USUAL_OUTPUT, ...change } });
const names = async () => (await listed()).queue.map(({ fileName }) => fileName);
const FIGURES = {
  ...{ width: 1080, height: 1920, rate: "30", frames: 10, durationSeconds: 1, soundSeconds: null, bytes: 5 },
  checks: [{ name: "bars", isGood: false, text: "there are black bars at the edges" }],
};

describe("exports", () => {
  test("are queued under names that nothing has, in the format that is set", async () => {
    expect((await ask()).status).toBe(200);
    await ask();
    setOutput({ format: "prores" });
    await ask();
    expect(await names()).toEqual([...["Kite 1080x1920.mp4", "Kite 1080x1920 (2).mp4", "Kite 1080x1920.mov"]]);
    expect((await ask(["nobody"])).status).toBe(404);
    expect((await send({ intent: "export", chosen: "{" })).status).toBe(400);
  });

  test("that cannot be made are refused with what to do", async () => {
    setOutput({ format: "gif" });
    // Ten seconds may be a GIF, and so may no more than thirty: at two frames a second the same film lasts longer.
    expect((await ask()).status).toBe(200);
    const { info } = findFilm(db, "film")!;
    const slow = JSON.stringify({ ...info, rate: { num: 2, den: 1 } });
    db.prepare("UPDATE films SET info = ? WHERE id = 'film'").run(slow);
    expect(await ask()).toMatchObject({ status: 409, data: expect.stringContaining("lasts at most 30 s") });
    setOutput({ folder: { path: "/etc" } });
    expect(await ask()).toMatchObject({ status: 409, data: expect.stringContaining("/etc cannot be written to") });
    setOutput({ folder: "beside" });
    expect(await ask()).toMatchObject({
      status: 409,
      data: expect.stringContaining("nothing can be written beside it"),
    });
  });

  test("go to a folder that is allowed, where nothing is overwritten", async () => {
    const out = join(folder, "out");
    mkdirSync(out);
    writeFileSync(join(out, "Kite 1080x1920.mp4"), "another's");
    process.env.GLAD_PAN_OUT = out;
    setOutput({ folder: { path: out } });
    await ask();
    expect((await listed()).queue).toMatchObject([{ fileName: "Kite 1080x1920 (2).mp4", folder: out }]);
  });

  test("are put in another order, paused, resumed and cancelled", async () => {
    for (let i = 0; i < 3; i++) await ask();
    const ids = listRenders(db).map(({ id }) => id);
    await send({ intent: "order", jobIds: [ids[2], ids[0]].join(",") });
    expect(listRenders(db).map(({ id }) => id)).toEqual([ids[2], ids[0], ids[1]]);
    await send({ intent: "pause", jobId: ids[2]! });
    expect(takeJob(db)?.id).toBe(ids[0]);
    // One render at a time.
    expect(takeJob(db)).toBeNull();
    finishJob(db, ids[0]!, { state: "failed", error: "no" });
    await send({ intent: "resume", jobId: ids[2]! });
    expect(takeJob(db)?.id).toBe(ids[2]);
    await send({ intent: "cancel", jobId: ids[1]! });
    expect((await listed()).files.map(({ state }) => state).sort()).toEqual(["cancelled", "failed"]);
    await send({ intent: "pause-all" });
    expect((await listed()).queue.every(({ isPaused }) => isPaused)).toBe(true);
    expect((await send({ intent: "cancel", jobId: "nobody" })).status).toBe(404);
  });

  test("that are done are told with what needs a look, and with whether the version has changed since", async () => {
    await ask();
    const job = takeJob(db)!;
    const state = loadState(db, findFilm(db, "film")!);
    const print = exportPrint(state, state.versions[0]!);
    finishJob(db, job.id, { state: "done", result: { ...FIGURES, print, made: 1, parts: 4 } });
    const [file] = (await listed()).files;
    expect(file).toMatchObject({ isChanged: false, made: 1, parts: 4, figures: { checks: FIGURES.checks } });
    expect(file!.finishedAt).toBeGreaterThan(0);
    expect(findExportFile(findFilm(db, "film")!, "Kite 1080x1920.mp4")).toMatchObject({ mediaType: "video/mp4" });
    expect(findExportFile(findFilm(db, "film")!, "../glad-pan.db")).toBeNull();
    // What is seen, or how it is exported, changes no picture; a size does.
    const [version] = listVersions(db, "film");
    saveVersion(db, "film", { ...version!, seenLooks: ["a"], output: { ...USUAL_OUTPUT, quality: "best" } });
    db.prepare("UPDATE films SET revision = revision + 1").run();
    expect((await listed()).files[0]!.isChanged).toBe(false);
    saveVersion(db, "film", { ...version!, width: 1080, height: 1350 });
    db.prepare("UPDATE films SET revision = revision + 1").run();
    expect((await listed()).files[0]!.isChanged).toBe(true);
  });

  test("are deleted with their files", async () => {
    await ask();
    const job = takeJob(db)!;
    const exported = join(folder, "data", "films", "film", "exports");
    mkdirSync(exported, { recursive: true });
    for (const name of ["Kite 1080x1920.mp4", "Kite 1080x1920.srt"]) writeFileSync(join(exported, name), "x");
    finishJob(db, job.id, { state: "done", result: { ...FIGURES, sidecars: ["Kite 1080x1920.srt"] } });
    await send({ intent: "delete", jobId: job.id });
    expect(listRenders(db)).toEqual([]);
    expect(existsSync(join(exported, "Kite 1080x1920.mp4"))).toBe(false);
    expect(existsSync(join(exported, "Kite 1080x1920.srt"))).toBe(false);
  });
});

test("what is known of a version is given file by file, and all of it as an archive", async () => {
  const at = (file: string, versionId = "tall") => get(versionFile, { filmId: "film", versionId, file });
  expect((await at("path.csv")).data).toMatch(/^frame,timecode,shot,pane,x,y,width,height\n0,/);
  expect((await at("all.zip")).data).toMatch(/^PK/);
  expect((await at("captions.srt")).status).toBe(404);
  expect((await at("secret.txt")).status).toBe(404);
  expect((await at("path.csv", "nobody")).status).toBe(409);
});
