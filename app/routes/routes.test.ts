/** What routes answer, called as the router calls them, on a database in memory. */
import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, test } from "@jest/globals";
import { createCanvas } from "@napi-rs/canvas";
import { answerOf, get, post, type RouteArguments } from "../../tests/support/route-answers";
import { twoShotFilm } from "../../tests/support/two-shot-film";
import type { EditAnswer } from "~/core/edits/answer";
import { FilmStatus } from "~/core/film/film-status";
import type { Track } from "~/core/subjects/tracking/track";
import { saveTracks } from "~/db/analysis.server";
import type { Db } from "~/db/database.server";
import { findFilm, findWanted } from "~/db/films.server";
import { insertJob, listJobs } from "~/db/jobs.server";
import { saveMarkTrack } from "~/db/marks.server";
import { listShots } from "~/db/shots.server";
import { listHandKeys, listVersions, saveVersion } from "~/db/versions.server";
import { movingFolder } from "~/library/own/own-moving.server";
import { dataFolder, useDatabase } from "~/db/workplace.server";
import type { LoadedTracks } from "~/workers/path-worker";
import { action as cutsAction, loader as cuts } from "./cuts";
import { action as deskAction, loader as desk } from "./desk";
import { action as edit } from "./edit";
import { action as filmsAction, loader as films } from "./films";
import { action as checkpointsAction, loader as checkpoints } from "./checkpoints";
import { loader as history } from "./history";
import { loader as ownFile } from "./own-file";
import { action as ownFiles } from "./own-files";
import { loader as shapes } from "./shapes";
import { loader as status } from "./status";
import { loader as tracks } from "./tracks";
import { action as wanted } from "./wanted";

let db: Db;
beforeEach(() => {
  db = twoShotFilm();
  useDatabase(db);
});
afterEach(() => useDatabase(null));

const FILM = { filmId: "film" };
const change = (body: unknown, params = FILM) => post(edit, params, JSON.stringify(body), "application/json");
const form = (route: unknown, values: Record<string, string>, params: Record<string, string> = FILM) =>
  post(route, params, new URLSearchParams(values));
const key = (frame: number, x = 700) => ({ pane: 0, frame, x, y: 540, height: 1080, easing: null });
const setKey = (frame: number, x?: number) => ({ type: "set-key", versionId: "tall", key: key(frame, x) });

describe("the history of a film", () => {
  const known = async () => (await get(history, FILM)).data as { edits: { sequence: number; isUndone: boolean }[] };
  const frames = () => listHandKeys(db, "tall").map(({ frame }) => frame);

  test("is listed with what was undone, and any step of it is gone to in one change", async () => {
    for (const [revision, frame] of [10, 20, 30].entries()) {
      await change({ do: "edit", revision, command: setKey(frame) });
    }
    const back = await change({ do: "go-to", revision: 3, sequence: 1 });
    expect(back.data).toMatchObject({ revision: 4, difference: { handKeys: [{ removed: [20, 30], put: [] }] } });
    expect(frames()).toEqual([10]);
    expect((await known()).edits.map(({ sequence, isUndone }) => [sequence, isUndone])).toEqual([
      [3, true],
      [2, true],
      [1, false],
    ]);
    expect((await change({ do: "go-to", revision: 4, sequence: 0 })).data).toMatchObject({ revision: 5 });
    expect(frames()).toEqual([]);
    await change({ do: "go-to", revision: 5, sequence: 3 });
    expect(frames()).toEqual([10, 20, 30]);
    expect((await change({ do: "go-to", revision: 6, sequence: 3 })).data).toEqual({ revision: 6 });
    expect(await change({ do: "go-to", revision: 2, sequence: 1 })).toMatchObject({
      status: 409,
      data: { stale: true },
    });
  });

  test("has checkpoints, which are returned to, and can be deleted and put back", async () => {
    const changed = (body: unknown) => post(checkpointsAction, FILM, JSON.stringify(body), "application/json");
    const listed = async () => ((await get(checkpoints, FILM)).data as { checkpoints: unknown[] }).checkpoints;
    await change({ do: "edit", revision: 0, command: setKey(10) });
    expect((await changed({ do: "add", id: "s1", name: "before client" })).status).toBe(200);
    await change({ do: "edit", revision: 1, command: { type: "remove-key", versionId: "tall", frame: 10 } });
    await change({ do: "edit", revision: 2, command: setKey(40) });
    const returned = await change({ do: "return-to", revision: 3, checkpointId: "s1" });
    expect(returned.data).toMatchObject({ sentence: "Returned to “before client”" });
    expect(frames()).toEqual([10]);
    await change({ do: "undo", revision: 4 });
    expect(frames()).toEqual([40]);

    await changed({ do: "delete", id: "s1" });
    expect(await listed()).toEqual([]);
    expect(await change({ do: "return-to", revision: 5, checkpointId: "s1" })).toMatchObject({ status: 404 });
    expect(await get(checkpoints, FILM, "?id=s1")).toMatchObject({ status: 404 });
    await changed({ do: "put-back", id: "s1" });
    expect(await listed()).toMatchObject([{ id: "s1", name: "before client" }]);
    expect((await get(checkpoints, FILM, "?id=s1")).data).toMatchObject({ handKeys: [{ put: [key(10)] }] });
    expect((await changed({ do: "add", id: "s2", name: "  " })).status).toBe(400);
    expect((await changed({ do: "add", id: "s1", name: "after client" })).status).toBe(409);
  });
});

test("how a shot goes into the usual shapes is told for each", async () => {
  const asked = (query: string) => get(shapes, FILM, query);
  const { status: code, data } = await asked("?version=tall&shot=one");
  expect(code).toBe(200);
  expect(data).toHaveLength(6);
  expect(data).toContainEqual(expect.objectContaining({ name: "Square 1:1", inside: null, travel: 0 }));
  expect((await asked("?version=tall&shot=none")).status).toBe(404);
  expect((await asked("?shot=one")).status).toBe(400);
});

describe("an edit", () => {
  test("is made, and answered with what has changed and how it is called", async () => {
    const { status: code, data } = await change({ do: "edit", revision: 0, command: setKey(10) });
    expect(code).toBe(200);
    expect(data).toEqual({
      revision: 1,
      difference: { handKeys: [{ versionId: "tall", pane: 0, removed: [], put: [key(10)] }] },
      sentence: "Added a keyframe in shot 1 at 00:00:00:10",
      history: { undo: "Added a keyframe in shot 1 at 00:00:00:10", redo: null },
    } satisfies EditAnswer);
    expect(listHandKeys(db, "tall")).toEqual([key(10)]);
  });

  test("is undone and redone; where there is nothing, nothing is said", async () => {
    expect(await change({ do: "undo", revision: 0 })).toEqual({ status: 200, data: { revision: 0 } });
    await change({ do: "edit", revision: 0, command: setKey(10) });
    const undone = await change({ do: "undo", revision: 1 });
    expect(undone.data).toMatchObject({
      revision: 2,
      difference: { handKeys: [{ removed: [10], put: [] }] },
      history: { undo: null, redo: "Added a keyframe in shot 1 at 00:00:00:10" },
    });
    expect((await change({ do: "redo", revision: 2 })).data).toMatchObject({ revision: 3, history: { redo: null } });
  });

  test("to an older state is refused, with the newer revision", async () => {
    await change({ do: "edit", revision: 0, command: setKey(10) });
    const late = await change({ do: "edit", revision: 0, command: setKey(20) });
    expect(late).toMatchObject({ status: 409, data: { revision: 1, stale: true } });
  });

  test("that makes no sense is refused with a sentence, and no part of it is made", async () => {
    const outside = await change({ do: "edit", revision: 0, command: setKey(300) });
    expect(outside).toMatchObject({ status: 409, data: { error: "the film has no frame 300", stale: false } });
    const half = { type: "batch", commands: [setKey(10), setKey(300)] };
    expect((await change({ do: "edit", revision: 0, command: half })).status).toBe(409);
    expect(listHandKeys(db, "tall")).toEqual([]);
    expect(findFilm(db, "film")!.revision).toBe(0);
    expect((await change({ do: "edit", revision: 0, command: { type: "explode" } })).status).toBe(400);
    expect((await change({ do: "undo", revision: 0 }, { filmId: "nobody" })).status).toBe(404);
    expect((await post(edit, FILM, "{}", "text/plain")).status).toBe(415);
  });

  test("that fails for another reason is no refusal, and no part of it is made", async () => {
    db.exec("CREATE TRIGGER broken BEFORE INSERT ON edits BEGIN SELECT RAISE(ABORT, 'a fault of ours'); END");
    await expect(change({ do: "edit", revision: 0, command: setKey(10) })).rejects.toMatchObject({
      message: "a fault of ours",
    });
    expect(listHandKeys(db, "tall")).toEqual([]);
  });

  test("of a mark queues what has to be looked for, together with it", async () => {
    const box = { x: 10, y: 20, width: 30, height: 40 };
    await change({ do: "edit", revision: 0, command: { type: "put-mark", thing: "m", frame: 5, box } });
    expect(listJobs(db, "film").map(({ kind }) => kind)).toEqual(["follow"]);
  });
});

describe("the desk's data", () => {
  test("is all of the film's state, and what there is to be loaded", async () => {
    saveTracks(db, "film", { start: 0, end: 100 }, []);
    const { data } = await get(desk, FILM);
    expect(data).toMatchObject({
      film: { id: "film", name: "Kite.mp4", frames: 300 },
      loaded: { revision: 0, history: { undo: null, redo: null }, state: { shots: [{ id: "one" }, { id: "two" }] } },
      findings: { analysed: [{ start: 0, end: 100 }], marks: [] },
      status: { revision: 0, jobs: [], exports: [] },
    });
    expect((await get(desk, { filmId: "nobody" })).status).toBe(404);
  });

  test("of a film that cannot be read is a sentence, and the library has the others", async () => {
    db.prepare("UPDATE shots SET protect = '{'").run();
    const broken = await get(desk, FILM);
    expect(broken.status).toBe(422);
    expect(broken.data).toMatch(/^What Glad Pan has stored of Kite\.mp4 cannot be read\./);
    db.prepare("UPDATE films SET info = '{}'").run();
    expect((await get(films, {})).data).toMatchObject({ films: [], broken: [{ id: "film", name: "Kite.mp4" }] });
  });

  test("is asked for by a poll that says little: jobs, and what has changed", async () => {
    insertJob(db, { id: "job", filmId: "film", kind: "analyse" });
    const before = FilmStatus.parse((await get(status, FILM)).data);
    expect(before).toMatchObject({ revision: 0, jobs: [{ id: "job", kind: "analyse", state: "queued" }] });
    const box = { x: 1, y: 2, width: 3, height: 4 };
    saveMarkTrack(db, "film", "basis", { id: "mark-m", kind: "mark", start: 0, boxes: [box], confidence: 1 });
    const after = FilmStatus.parse((await get(status, FILM)).data);
    expect(after.findings).toBe(before.findings + 1);
    expect(JSON.stringify(after).length).toBeLessThan(500);
  });
});

describe("tracks", () => {
  const found: Track = {
    id: "a",
    kind: "face",
    start: 0,
    confidence: 0.9,
    boxes: [{ x: 10, y: 20, width: 30, height: 40 }, null],
  };

  test("are sent for the ranges and marks that are asked for", async () => {
    saveTracks(db, "film", { start: 0, end: 100 }, [found]);
    saveMarkTrack(db, "film", "basis", { ...found, id: "mark-m", kind: "mark" });
    const { data } = await get(tracks, FILM, "?ranges=0-100,100-300&marks=1,77");
    const { analysed, marks } = data as LoadedTracks;
    expect(analysed.map(({ start, tracks: each }) => [start, each.length])).toEqual([
      [0, 1],
      [100, 0],
    ]);
    expect(analysed[0]!.tracks[0]!.places).toEqual([[100, 200, 300, 400], 0]);
    expect(marks.map(({ basis }) => basis)).toEqual(["basis"]);
    expect((await get(tracks, FILM)).data).toEqual({ analysed: [], marks: [] });
  });

  test("of what is no range are refused", async () => {
    for (const query of ["?ranges=5", "?ranges=9-3", "?ranges=a-b", "?marks=x", `?ranges=${"0-1,".repeat(2001)}0-1`]) {
      expect((await get(tracks, FILM, query)).status).toBe(400);
    }
    expect((await get(tracks, { filmId: "nobody" }, "?ranges=0-1")).status).toBe(404);
  });
});

describe("the desk's forms", () => {
  test("queue a render of a version that is there, once all that it shows is analysed", async () => {
    const render = () => form(deskAction, { intent: "export", versionIds: "tall" });
    expect((await form(deskAction, { intent: "export", versionIds: "gone" })).status).toBe(404);
    expect(await render()).toMatchObject({ status: 409, data: expect.stringContaining("has not been analysed yet") });
    saveTracks(db, "film", { start: 0, end: 100 }, []);
    expect((await render()).status).toBe(409);
    saveVersion(db, "film", { ...listVersions(db, "film")[0]!, trim: { in: 20, out: 100, leftOut: [] } });
    expect((await render()).status).toBe(200);
    expect(listJobs(db, "film")).toMatchObject([{ kind: "render", state: "queued" }]);
  });

  test("cancel a job of the film and of no other, and start it again", async () => {
    insertJob(db, { id: "job", filmId: "film", kind: "analyse" });
    expect((await form(deskAction, { intent: "cancel", jobId: "nobody" })).status).toBe(404);
    await form(deskAction, { intent: "cancel", jobId: "job" });
    expect(listJobs(db, "film")[0]!.state).toBe("cancelled");
    await form(filmsAction, { intent: "retry", jobId: "job" }, {});
    expect(listJobs(db, "film")[0]!.state).toBe("queued");
  });

  test("of no sense are refused", async () => {
    expect((await form(deskAction, { intent: "explode" })).status).toBe(400);
    expect((await form(deskAction, { intent: "sound", index: "7" })).status).toBe(422);
    expect((await form(deskAction, { intent: "fields" })).data).toBe(
      "Kite.mp4: it is not interlaced, so its frame rate cannot be doubled.",
    );
    expect((await form(filmsAction, { intent: "delete", filmId: "nobody" }, {})).status).toBe(404);
  });
});

describe("cuts", () => {
  test("go out in the formats there are, and a list that comes in changes nothing", async () => {
    const edl = await get(cuts, { ...FILM, format: "edl" });
    expect(edl.data).toContain("TITLE: Kite");
    expect((await get(cuts, { ...FILM, format: "pdf" })).status).toBe(404);
    const list = new FormData();
    list.set("list", new File([String((await get(cuts, { ...FILM, format: "csv" })).data)], "kite.csv"));
    const read = await answerOf(() =>
      (cutsAction as unknown as (of: RouteArguments) => unknown)({
        params: { ...FILM, format: "list" },
        request: new Request("http://desk/x", { method: "POST", body: list }),
      }),
    );
    expect(read.data).toMatchObject({
      name: "kite.csv",
      comparison: { same: 1, near: [], onlyHere: [], onlyThere: [] },
    });
    expect(listShots(db, "film")).toHaveLength(2);
  });
});

test("the analysis is told where somebody waits for it, within the film", async () => {
  const ask = (body: unknown) => post(wanted, FILM, JSON.stringify(body), "application/json");
  expect(findWanted(db, "film")).toBeNull();
  expect((await ask({ frame: 40 })).status).toBe(200);
  expect(findWanted(db, "film")).toBe(40);
  await ask({ frame: 1_000_000 });
  expect(findWanted(db, "film")).toBe(findFilm(db, "film")!.info.frames - 1);
  expect((await ask({ frame: -1 })).status).toBe(400);
  expect((await post(wanted, { filmId: "nobody" }, '{"frame":1}', "application/json")).status).toBe(404);
});

describe("a picture or a font of one's own", () => {
  const before = process.env.GLAD_PAN_DATA;
  beforeAll(() => {
    process.env.GLAD_PAN_DATA = mkdtempSync(join(tmpdir(), "glad-pan-own-files-"));
  });
  afterAll(() => {
    rmSync(dataFolder(), { recursive: true, force: true });
    if (before === undefined) delete process.env.GLAD_PAN_DATA;
    else process.env.GLAD_PAN_DATA = before;
  });
  const sent = (kind: string, name: string, text: string) => {
    const body = new FormData();
    body.set(kind, new File([text], name));
    return post(ownFiles, {}, body);
  };

  test("that is none is refused with its name and what to do", async () => {
    expect(await sent("picture", "logo.png", "kites")).toMatchObject({
      status: 422,
      data: { file: null, error: expect.stringContaining("logo.png: this is not a picture") },
    });
    expect(await sent("font", "house.ttf", "kites")).toMatchObject({
      status: 422,
      data: { error: expect.stringContaining("house.ttf: this is not a font") },
    });
    expect(await sent("words", "a.txt", "kites")).toMatchObject({ status: 400 });
    expect(await post(ownFiles, {}, nobodysFilm())).toMatchObject({ status: 404 });
    expect(await post(ownFiles, {}, "kites", "application/octet-stream", "?name=kite.mov")).toMatchObject({
      status: 422,
      data: { file: null, error: expect.stringContaining("kite.mov: ") },
    });
    // Nothing of it is left.
    expect(existsSync(movingFolder()) ? readdirSync(movingFolder()) : []).toEqual([]);
  });

  test("that moves is kept by what is in it, as is a row of pictures with the rate of the film", async () => {
    const film = readFileSync("demo/clips/two-shots.mp4");
    const taken = await post(ownFiles, {}, film, "application/octet-stream", "?name=..%2Fkite.mov");
    const moving = { frames: 99, rate: { num: 30, den: 1 }, sound: true };
    expect(taken.data).toMatchObject({ file: { name: "kite.mov", width: 1280, height: 720, moving }, error: null });
    const again = await post(ownFiles, {}, film, "application/octet-stream", "?name=other.mp4");
    const idOf = ({ data }: { data: unknown }) => (data as { file: { id: string } }).file.id;
    expect(idOf(again)).toBe(idOf(taken));

    const body = new FormData();
    for (const n of [2, 1]) {
      const picture = createCanvas(40, 40 * n).toBuffer("image/png");
      body.append("picture", new File([Uint8Array.from(picture)], `row${n}.png`));
    }
    expect(await post(ownFiles, {}, body)).toMatchObject({
      status: 422,
      data: { error: "row2.png: it is 40 × 80, and row1.png is 40 × 40." },
    });
    body.delete("picture");
    for (const n of [1, 2, 3]) {
      body.append("picture", new File([Uint8Array.from(createCanvas(40, 40).toBuffer("image/png"))], `row${n}.png`));
    }
    body.set("rate", "24000/1001");
    expect((await post(ownFiles, {}, body)).data).toMatchObject({
      file: { name: "row1.png", moving: { frames: 3, rate: { num: 24000, den: 1001 }, sound: false } },
    });
  });

  /** A form that asks for a film that is not in the library. */
  const nobodysFilm = () => {
    const body = new FormData();
    body.set("film", "nobody");
    return body;
  };

  test("that is not there is not found, whatever is asked for", async () => {
    for (const fileId of ["0123456789abcdef0123456789abcdef", "../../glad-pan", "logo.png"]) {
      expect(await get(ownFile, { fileId })).toMatchObject({ status: 404 });
    }
  });
});
