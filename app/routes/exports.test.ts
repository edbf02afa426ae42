import { afterEach, beforeEach, describe, expect, test } from "@jest/globals";
import { existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { INFO } from "../../tests/support/film-info";
import { get, post } from "../../tests/support/route-answers";
import { twoShotFilm } from "../../tests/support/two-shot-film";
import type { ExportView } from "~/core/film/film-status";
import { OutputSettings, RATES, USUAL_OUTPUT } from "~/core/formats/output-settings";
import { freshShot } from "~/core/shots/shot";
import { renderIn } from "~/library/exports/render-work";
import { saveTracks } from "~/db/analysis.server";
import type { Db } from "~/db/database.server";
import { findFilm, insertFilm } from "~/db/films.server";
import { finishJob, listRenders, takeJob } from "~/db/jobs.server";
import { saveShot } from "~/db/shots.server";
import { listVersions, saveVersion } from "~/db/versions.server";
import { exportPrint } from "~/library/exports/export-state.server";
import { findExportFile } from "~/library/exports/exports.server";
import { clearExports } from "~/library/films/keep-films.server";
import { useDatabase } from "~/db/workplace.server";
import { noteWritten } from "~/library/exports/written-files.server";
import { loadState } from "~/db/film-state.server";
import { action as exportsAction, loader as exports } from "./exports";
import { loader as films } from "./films";
import { loader as status } from "./status";
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
const ask = (ids: string[] = ["tall"]) => send({ intent: "export", selected: JSON.stringify({ film: ids }) });
const listed = async () => (await get(exports, {})).data as { queue: ExportView[]; files: ExportView[] };
const setOutput = (change: Partial<typeof USUAL_OUTPUT>) =>
  saveVersion(db, "film", { ...listVersions(db, "film")[0]!, output: { ...USUAL_OUTPUT, ...change } });
const names = async () => (await listed()).queue.map(({ fileName }) => fileName);
const FIGURES = {
  width: 1080,
  height: 1920,
  rate: "30",
  frames: 10,
  durationSeconds: 1,
  soundSeconds: null,
  bytes: 5,
  checks: [{ name: "bars", isGood: false, text: "there are black bars at the edges" }],
};

describe("exports", () => {
  test("are queued under names that nothing has, in the format that is set", async () => {
    expect((await ask()).status).toBe(200);
    await ask();
    setOutput({ format: "prores" });
    await ask();
    expect(await names()).toEqual(["Kite 1080x1920.mp4", "Kite 1080x1920 (2).mp4", "Kite 1080x1920.mov"]);
    expect((await ask(["nobody"])).status).toBe(404);
    expect((await send({ intent: "export", selected: "{" })).status).toBe(400);
  });

  test("that cannot be made are refused with what to do", async () => {
    setOutput({ format: "gif" });
    // Ten seconds may be a GIF, and so may no more than thirty: at two frames per second the same film lasts longer.
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
    saveVersion(db, "film", { ...version!, reviewedFlags: ["a"], output: { ...USUAL_OUTPUT, quality: "best" } });
    db.prepare("UPDATE films SET revision = revision + 1").run();
    expect((await listed()).files[0]!.isChanged).toBe(false);
    saveVersion(db, "film", { ...version!, width: 1080, height: 1350 });
    db.prepare("UPDATE films SET revision = revision + 1").run();
    expect((await listed()).files[0]!.isChanged).toBe(true);
  });

  test("of several films with one pattern in one folder have names of their own", async () => {
    const out = join(folder, "out");
    mkdirSync(out);
    process.env.GLAD_PAN_OUT = out;
    insertFilm(db, { id: "other", name: "Kite.mov", file: "/other.mov", info: INFO });
    saveShot(db, "other", freshShot("other.0", { start: 0, end: INFO.frames }, null));
    saveTracks(db, "other", { start: 0, end: INFO.frames }, []);
    setOutput({ folder: { path: out } });
    saveVersion(db, "other", { ...listVersions(db, "film")[0]!, id: "others" });
    await send({ intent: "export", selected: JSON.stringify({ film: ["tall"], other: ["others"] }) });
    expect(await names()).toEqual(["Kite 1080x1920.mp4", "Kite 1080x1920 (2).mp4"]);
  });

  test("that make no sense any more are shown, and can be deleted; they keep nobody from the others", async () => {
    for (let i = 0; i < 3; i++) await ask();
    const [first, second, third] = listRenders(db).map(({ id }) => id);
    const payload = { versionId: "tall", fileName: "x.mp4", output: { ...USUAL_OUTPUT, rate: { num: null, den: 1 } } };
    db.prepare("UPDATE jobs SET payload = ? WHERE id = ?").run(JSON.stringify(payload), first);
    db.prepare("UPDATE jobs SET state = 'done', result = '{' WHERE id = ?").run(second);
    const { queue, files } = await listed();
    expect([queue.map(({ id }) => id), files.map(({ id }) => id).sort()]).toEqual([[third], [first, second].sort()]);
    expect(files.map(({ isUnreadable, error }) => [isUnreadable, error])).toEqual(
      [1, 2].map(() => [true, expect.stringContaining("is damaged. Delete it")]),
    );
    expect((await get(status, { filmId: "film" })).status).toBe(200);
    await ask();
    expect((await send({ intent: "delete", jobId: first! })).status).toBe(200);
    await clearExports(findFilm(db, "film")!);
    expect((await send({ intent: "delete", jobId: second! })).status).toBe(200);
    expect((await listed()).files.map(({ state }) => state)).toEqual(["cancelled", "cancelled"]);
  });

  test("are listed without the names of versions that cannot be read", async () => {
    await ask();
    db.prepare("UPDATE versions SET layers = '{' WHERE id = 'tall'").run();
    expect((await listed()).queue.map(({ fileName }) => fileName)).toEqual(["Kite 1080x1920.mp4"]);
    expect((await get(films, {})).status).toBe(200);
  });

  test("at a rate that no file has are not set up", () => {
    const rates = [
      { num: 1e308, den: 1e-300 },
      { num: 241, den: 1 },
      { num: 1, den: 2 },
      { num: 29.97, den: 1 },
      { num: 0, den: 1 },
    ];
    for (const rate of rates) expect(OutputSettings.safeParse({ ...USUAL_OUTPUT, rate }).success).toBe(false);
    for (const rate of RATES) expect(OutputSettings.safeParse({ ...USUAL_OUTPUT, rate }).success).toBe(true);
  });
});

describe("the files of an export", () => {
  const kept = () => join(folder, "data", "films", "film", "exports");
  /** Lets the next export be done, with files of these names and contents. */
  async function done(files: Record<string, string>): Promise<string> {
    await ask();
    const job = takeJob(db)!;
    const { folder: out } = renderIn(job)!.asked;
    const at = out ?? kept();
    mkdirSync(at, { recursive: true });
    for (const [name, text] of Object.entries(files)) writeFileSync(join(at, name), text);
    const [fileName, ...sidecars] = Object.keys(files);
    const written = await noteWritten(at, Object.keys(files));
    finishJob(db, job.id, { state: "done", result: { ...FIGURES, fileName, sidecars, written } });
    return job.id;
  }
  const remove = (jobId: string) => send({ intent: "delete", jobId });

  test("are deleted with it", async () => {
    const id = await done({ "Kite 1080x1920.mp4": "film", "Kite 1080x1920.srt": "text" });
    writeFileSync(join(kept(), "Kite 1080x1920.vtt"), "somebody else's");
    await remove(id);
    expect(listRenders(db)).toEqual([]);
    expect(readdirSync(kept())).toEqual(["Kite 1080x1920.vtt"]);
  });

  test("are left alone when something else has taken the place of one", async () => {
    const out = join(folder, "out");
    mkdirSync(out);
    process.env.GLAD_PAN_OUT = out;
    setOutput({ folder: { path: out } });
    const id = await done({ "Kite 1080x1920.mp4": "film" });
    writeFileSync(join(out, "Kite 1080x1920.mp4"), "FILM");
    await remove(id);
    expect(readFileSync(join(out, "Kite 1080x1920.mp4"), "utf8")).toBe("FILM");
    // An export that was cancelled or waits has written nothing, whatever has its name.
    for (const intent of ["cancel", "pause"]) {
      await ask();
      const job = listRenders(db).at(-1)!;
      const { fileName } = renderIn(job)!;
      await send({ intent, jobId: job.id });
      writeFileSync(join(out, fileName), "somebody else's");
      await remove(job.id);
      expect(existsSync(join(out, fileName))).toBe(true);
    }
  });

  test("that an older Glad Pan has written are known by their names, in the library's own folder", async () => {
    const id = await done({ "Kite 1080x1920.mp4": "film", "Kite 1080x1920.srt": "text" });
    db.prepare("UPDATE jobs SET result = json_remove(result, '$.written', '$.fileName')").run();
    await remove(id);
    expect(readdirSync(kept())).toEqual([]);
  });

  test("are found by the names that they have got", async () => {
    await done({ "Kite 1080x1920 (2).mp4": "film", "Kite 1080x1920 (2).vtt": "text" });
    const film = findFilm(db, "film")!;
    expect(findExportFile(film, "Kite 1080x1920.mp4")).toBeNull();
    const at = (name: string) => join(kept(), name);
    expect(findExportFile(film, "Kite 1080x1920 (2).mp4")?.file).toBe(at("Kite 1080x1920 (2).mp4"));
    expect(findExportFile(film, "Kite 1080x1920 (2).vtt")).toEqual({
      file: at("Kite 1080x1920 (2).vtt"),
      mediaType: "text/vtt",
    });
    expect((await listed()).files[0]!.fileName).toBe("Kite 1080x1920 (2).mp4");
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
