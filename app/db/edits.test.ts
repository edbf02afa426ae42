import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { Worker } from "node:worker_threads";
import { beforeEach, describe, expect, test } from "@jest/globals";
import { newVersion } from "~/core/version/film-state";
import { applyDifference } from "~/core/edits/difference";
import { freshShot } from "~/core/shots/shot";
import { INFO } from "../../tests/support/film-info";
import { twoShotFilm } from "../../tests/support/two-shot-film";
import type { Db } from "./database.server";
import { Refusal } from "~/core/basics/refusal";
import { edit, historyOf, StaleRevision, stepHistory } from "./edits.server";
import { loadState } from "./film-state.server";
import { listPeople, savePeople } from "./people.server";
import { findFilm, insertFilm } from "./films.server";
import { finishJob, insertJob } from "./jobs.server";
import { listShots, saveShot } from "./shots.server";
import { listHandKeys, listShotsInVersion, listVersions, saveVersion } from "./versions.server";

const KEY = { pane: 0, frame: 10, x: 700, y: 540, height: 1080, easing: null };

let db: Db;
beforeEach(() => {
  db = twoShotFilm();
});

const revision = () => findFilm(db, "film")!.revision;
const send = (command: Parameters<typeof edit>[3]) => edit(db, "film", revision(), command);
const undo = () => stepHistory(db, "film", revision(), "undo")?.sentence ?? null;
const redo = () => stepHistory(db, "film", revision(), "redo")?.sentence ?? null;
const history = () => historyOf(db, findFilm(db, "film")!);

describe("edits", () => {
  test("a key is set, moved onto another, taken back step by step, and done again", () => {
    send({ type: "set-key", versionId: "tall", key: KEY });
    send({ type: "set-key", versionId: "tall", key: { ...KEY, frame: 20, x: 900 } });
    send({ type: "move-key", versionId: "tall", fromFrame: 10, key: { ...KEY, frame: 20, x: 750 } });
    expect(listHandKeys(db, "tall")).toEqual([{ ...KEY, frame: 20, x: 750 }]);
    const moved = "Moved a keyframe in shot 1 to 00:00:00:20";
    expect(undo()).toBe(moved);
    expect(listHandKeys(db, "tall")).toEqual([KEY, { ...KEY, frame: 20, x: 900 }]);
    expect(undo()).toBe("Added a keyframe in shot 1 at 00:00:00:20");
    expect(undo()).toBe("Added a keyframe in shot 1 at 00:00:00:10");
    expect(undo()).toBeNull();
    expect(listHandKeys(db, "tall")).toEqual([]);
    expect([redo(), redo(), redo(), redo()].slice(2)).toEqual([moved, null]);
    expect(listHandKeys(db, "tall")).toEqual([{ ...KEY, frame: 20, x: 750 }]);
  });

  test("setting a key again and taking that back gives the first one back", () => {
    send({ type: "set-key", versionId: "tall", key: KEY });
    send({ type: "set-key", versionId: "tall", key: { ...KEY, x: 1000 } });
    undo();
    expect(listHandKeys(db, "tall")).toEqual([KEY]);
    send({ type: "remove-key", versionId: "tall", pane: 0, frame: 10 });
    undo();
    expect(listHandKeys(db, "tall")).toEqual([KEY]);
  });

  test("movement and subject of a shot", () => {
    send({ type: "set-framing", versionId: "tall", shotIds: ["one"], change: { movement: "chase" } });
    send({ type: "change-shots", shotIds: ["two"], change: { follow: { kind: "none" } } });
    expect(listShotsInVersion(db, "tall").get("one")).toEqual({ movement: "chase" });
    expect(listShots(db, "film")[1]!.follow).toEqual({ kind: "none" });
    undo();
    undo();
    expect(listShotsInVersion(db, "tall").has("one")).toBe(false);
    expect(listShots(db, "film")[1]!.follow).toEqual({ kind: "auto" });
  });

  test("versions come and go", () => {
    send({ type: "add-version", version: newVersion({ id: "square", name: "Square", width: 1080, height: 1080 }) });
    expect(listVersions(db, "film").map(({ id }) => id)).toEqual(["tall", "square"]);
    undo();
    expect(listVersions(db, "film").map(({ id }) => id)).toEqual(["tall"]);
    expect(() => send({ type: "remove-version", versionId: "tall" })).toThrow("at least one version");
  });

  test("all that can be edited is stored, undone and redone as it was, with its order", () => {
    savePeople(db, "film", [{ id: "p1", number: 0, signature: [1, 2], seen: 2 }]);
    const box = { x: 10, y: 20, width: 30, height: 40 };
    const state = () => loadState(db, findFilm(db, "film")!);
    const commands: Parameters<typeof edit>[3][] = [
      { type: "add-version", version: newVersion({ id: "square", name: "Square", width: 1080, height: 1080 }) },
      { type: "set-framing", versionId: "square", shotIds: ["one"], change: { calm: 9, follow: { kind: "none" } } },
      { type: "set-key", versionId: "square", key: KEY },
      { type: "split-shot", frame: 40, kind: "switch" },
      { type: "change-person", person: { id: "p1", name: "Ilse", mergedInto: null } },
      { type: "edit-track", trackId: "t", edit: { removed: [{ start: 0, end: 10 }], joinedTo: null } },
      { type: "put-mark", thing: "m", frame: 5, box },
      {
        type: "batch",
        commands: [
          { type: "change-shots", shotIds: ["two"], change: { protect: box, name: "Bench" } },
          { type: "put-mark", thing: "m", frame: 5, box: null },
        ],
      },
      { type: "remove-version", versionId: "tall" },
      { type: "set-transitions", transitions: [] },
    ];
    const states = [state()];
    for (const command of commands) {
      const { difference } = send(command);
      expect(applyDifference(states.at(-1)!, difference)).toEqual(state());
      states.push(state());
    }
    expect(states.at(-1)!.shots.map(({ begins }) => begins)).toEqual(["cut", "switch"]);
    for (let i = commands.length - 1; i >= 0; i--) {
      undo();
      expect(state()).toEqual(states[i]);
    }
    for (let i = 1; i <= commands.length; i++) {
      redo();
      expect(state()).toEqual(states[i]);
    }
  });

  test("what an analysis has found of people since stays when what was said of them is undone", () => {
    savePeople(db, "film", [{ id: "p1", number: 0, signature: null, seen: 1 }]);
    send({ type: "change-person", person: { id: "p1", name: "Ilse", mergedInto: null } });
    savePeople(db, "film", [{ id: "p1", number: 0, signature: [5], seen: 9 }]);
    expect(listPeople(db, "film")[0]).toMatchObject({ name: "Ilse", seen: 9, signature: [5] });
    undo();
    expect(listPeople(db, "film")[0]).toMatchObject({ name: null, seen: 9, signature: [5] });
  });

  test("something new after an undo takes the place of what was taken back", () => {
    send({ type: "set-key", versionId: "tall", key: KEY });
    undo();
    send({ type: "change-shots", shotIds: ["one"], change: { follow: { kind: "none" } } });
    expect(history()).toEqual({ undo: "Changed the subject of shot 1", redo: null });
    expect(redo()).toBeNull();
  });

  test("a change to an older state is refused and changes nothing", () => {
    const old = revision();
    send({ type: "set-key", versionId: "tall", key: KEY });
    expect(() => edit(db, "film", old, { type: "remove-key", versionId: "tall", pane: 0, frame: 10 })).toThrow(
      StaleRevision,
    );
    expect(() => stepHistory(db, "film", old, "undo")).toThrow(StaleRevision);
    expect(listHandKeys(db, "tall")).toHaveLength(1);
  });

  test("what makes no sense is refused and leaves no trace", () => {
    const before = revision();
    expect(() => send({ type: "set-key", versionId: "gone", key: KEY })).toThrow(Refusal);
    expect(() => send({ type: "set-key", versionId: "tall", key: { ...KEY, frame: 300 } })).toThrow("no frame 300");
    const gone = { type: "change-shots" as const, shotIds: ["gone"], change: { excluded: true } };
    expect(() => send(gone)).toThrow("no longer");
    expect(() => send({ type: "set-key", versionId: "tall", key: { ...KEY, x: 90 } })).toThrow("leave the picture");
    const again = newVersion({ id: "tall", name: "Again", width: 1080, height: 1080 });
    expect(() => send({ type: "add-version", version: again })).toThrow("already exists");
    expect(revision()).toBe(before);
    expect(history()).toEqual({ undo: null, redo: null });
  });

  test("another film's shots and versions are not there", () => {
    insertFilm(db, { id: "other", name: "Other.mp4", file: "/other.mp4", info: INFO });
    saveVersion(db, "other", newVersion({ id: "wide", name: "Wide", width: 1080, height: 1080 }));
    const others = freshShot("three", { start: 0, end: 300 }, null);
    saveShot(db, "other", others);
    expect(() => send({ type: "set-key", versionId: "wide", key: KEY })).toThrow("no longer");
    expect(() => send({ type: "join-shots", shotIds: ["one", "three"] })).toThrow("no longer");
    expect(() => saveShot(db, "film", { ...others, end: 5 })).toThrow("another film's");
    expect(listShots(db, "other")).toEqual([others]);
  });

  test("a film is not cut anew while it is still analysed", () => {
    insertJob(db, { id: "job", filmId: "film", kind: "analyse" });
    expect(() => send({ type: "set-sensitivity", sensitivity: 90 })).toThrow("still being analysed");
    expect(() => send({ type: "set-transitions", transitions: [] })).toThrow("still being analysed");
    send({ type: "split-shot", frame: 50, kind: "cut" });
    finishJob(db, "job", { state: "done" });
    send({ type: "set-transitions", transitions: [] });
    expect(listShots(db, "film").map(({ start, end }) => [start, end])).toEqual([[0, 300]]);
  });
});

/** Another thread's connection that writes without a pause, as a job's worker does from time to time. */
const WRITER = `
const { parentPort, workerData } = require("node:worker_threads");
const db = new (require("better-sqlite3"))(workerData);
db.pragma("busy_timeout = 10000");
const write = db.prepare("UPDATE films SET name = name || ''");
parentPort.once("message", () => process.exit());
parentPort.postMessage("writing");
setInterval(() => { for (let i = 0; i < 20; i++) write.run(); });
`;

test("an edit is kept while a worker writes to the same file", async () => {
  const folder = mkdtempSync(join(tmpdir(), "glad-pan-edits-"));
  const file = join(folder, "films.db");
  db = twoShotFilm(file);
  const writer = new Worker(WRITER, { eval: true, workerData: file });
  try {
    await new Promise((resolve) => writer.once("message", resolve));
    for (let x = 600; x < 800; x++) send({ type: "set-key", versionId: "tall", key: { ...KEY, x } });
    expect(listHandKeys(db, "tall")).toEqual([{ ...KEY, x: 799 }]);
  } finally {
    writer.postMessage("stop");
    await new Promise((resolve) => writer.once("exit", resolve));
    db.close();
    rmSync(folder, { recursive: true });
  }
});
