import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { beforeEach, describe, expect, test } from "@jest/globals";
import { INFO } from "../../tests/support/film-info";
import { type Db, openDatabase } from "./database.server";
import { insertFilm, listFilms } from "./films.server";
import {
  findJob,
  finishJob,
  giveBackJob,
  insertJob,
  listRenders,
  orderRenders,
  recoverJobs,
  reportProgress,
  retryJob,
  secondsLeft,
  takeJob,
} from "./jobs.server";

let db: Db;
beforeEach(() => {
  db = openDatabase(":memory:");
  insertFilm(db, { id: "film", name: "Kite.mp4", file: "/kite.mp4", info: INFO });
  for (const id of ["first", "second"]) insertJob(db, { id, filmId: "film", kind: "proxy" });
});

describe("jobs", () => {
  test("are taken in order, once each", () => {
    expect([takeJob(db)?.id, takeJob(db)?.id, takeJob(db)]).toEqual(["first", "second", null]);
  });

  test("that render wait in the order that is wanted; those that nobody names follow, and one that runs stays", () => {
    const asked = { versionId: "tall", fileName: "kite.mp4", revision: 0, print: "a" };
    for (const id of ["a", "b", "c", "d"]) insertJob(db, { id, filmId: "film", kind: "render", asked } as never);
    const order = () => listRenders(db).map(({ id }) => id);
    expect(order()).toEqual(["a", "b", "c", "d"]);
    orderRenders(db, ["d", "b"]);
    expect(order()).toEqual(["d", "b", "a", "c"]);
    for (const id of ["first", "second"]) finishJob(db, id, { state: "done" });
    expect(takeJob(db)?.id).toBe("d");
    expect(takeJob(db)).toBeNull();
    orderRenders(db, ["c", "d", "a"]);
    expect(order()).toEqual(["d", "c", "a", "b"]);
  });

  test("that are urgent come before all others, and can be asked for alone", () => {
    expect(takeJob(db, true)).toBeNull();
    insertJob(db, { id: "mark", filmId: "film", kind: "follow", asked: { basis: "kite" } });
    expect([takeJob(db)?.id, takeJob(db, true), takeJob(db)?.id]).toEqual(["mark", null, "first"]);
  });

  test("of marks are taken one at a time, so that many of them keep nobody else waiting", () => {
    for (let i = 0; i < 5; i++)
      insertJob(db, { id: `mark${i}`, filmId: "film", kind: "follow", asked: { basis: "kite" } });
    expect([takeJob(db)?.id, takeJob(db)?.id, takeJob(db, true)]).toEqual(["mark0", "first", null]);
    finishJob(db, "mark0", { state: "done" });
    expect([takeJob(db, true)?.id, takeJob(db)?.id]).toEqual(["mark1", "second"]);
  });

  test("of a film of clips wait until these are there", () => {
    insertJob(db, { id: "join", filmId: "film", kind: "join" });
    expect(takeJob(db)?.id).toBe("join");
    expect(takeJob(db)).toBeNull();
    // Nothing can be made of clips that are not there.
    finishJob(db, "join", { state: "failed", error: "the disk is full" });
    expect(takeJob(db)).toBeNull();
    retryJob(db, "join");
    expect(takeJob(db)?.id).toBe("join");
    finishJob(db, "join", { state: "done" });
    expect(takeJob(db)?.id).toBe("first");
  });

  test("report how far they are, and end once", () => {
    takeJob(db);
    reportProgress(db, "first", "Rendering", 0.5);
    expect(findJob(db, "first")).toMatchObject({ state: "running", step: "Rendering", progress: 0.5 });
    finishJob(db, "first", { state: "done", result: { frames: 3 } });
    finishJob(db, "first", { state: "failed", error: "too late" });
    expect(findJob(db, "first")).toMatchObject({
      state: "done",
      progress: 1,
      error: null,
      work: { result: { frames: 3 } },
    });
    reportProgress(db, "first", "Rendering", 0.2);
    expect(findJob(db, "first")!.progress).toBe(1);
  });

  test("tell how long they still take by how long they have taken since they were last begun", () => {
    takeJob(db);
    const left = (progress: number, seconds: number) => {
      reportProgress(db, "first", "Looking", progress);
      const job = findJob(db, "first")!;
      return secondsLeft(job, job.startedAt! + 1000 * seconds);
    };
    // It goes on from where an ended server left it.
    expect(left(0.6, 1)).toBeNull();
    expect(left(0.7, 10)).toBeCloseTo(30);
    expect(left(0.9, 30)).toBeCloseTo(10);
  });

  test("take what was there already when a step began for no work", () => {
    takeJob(db);
    const now = Date.now();
    reportProgress(db, "first", "Laying the path", 0, now);
    reportProgress(db, "first", "Rendering", 0.8, now + 1000);
    reportProgress(db, "first", "Rendering", 0.85, now + 6000);
    expect(secondsLeft(findJob(db, "first")!, now + 6000)).toBeCloseTo(15, 5);
  });

  test("that a killed server left running wait again, and are given up after too many tries", () => {
    for (let attempt = 1; attempt <= 4; attempt++) {
      expect(takeJob(db)).toMatchObject({ id: "first", attempts: attempt });
      recoverJobs(db);
    }
    expect(findJob(db, "first")).toMatchObject({ state: "failed" });
    expect(findJob(db, "first")!.error).toContain("4 times");
    retryJob(db, "first");
    expect(findJob(db, "first")).toMatchObject({ state: "queued", attempts: 0, error: null });
  });

  test("that got on before the server ended are taken up however often that happens", () => {
    for (let start = 1; start <= 10; start++) {
      expect(takeJob(db)?.id).toBe("first");
      // A job that goes on where it was says so first; that is no progress yet.
      for (const step of [0, 0.005, 0.015]) reportProgress(db, "first", "Rendering", 0.08 * start + step);
      recoverJobs(db);
      expect(findJob(db, "first")).toMatchObject({ state: "queued", attempts: 0 });
    }
    for (let start = 1; start <= 5; start++) {
      expect(takeJob(db)?.id).toBe("first");
      for (const step of [0, 0.005]) reportProgress(db, "first", "Rendering", 0.9 + step);
      recoverJobs(db);
    }
    expect(findJob(db, "first")!.state).toBe("failed");
  });

  test("that keep a little of each start are taken up however little that is", () => {
    for (let start = 0; start <= 8; start++) {
      expect(takeJob(db)?.id).toBe("first");
      reportProgress(db, "first", "Laying the path", 0);
      // What is kept of the starts before, and then some frames of the next part.
      for (const step of [0, 0.0002, 0.0008]) reportProgress(db, "first", "Rendering", 0.001 * start + step);
      recoverJobs(db);
    }
    expect(findJob(db, "first")!.state).toBe("queued");
  });

  test("that end at the same place every time are given up, however far on that is", () => {
    const starts = Array.from({ length: 9 }, () => {
      const job = takeJob(db);
      for (const progress of [0, 0.2, 0.4]) reportProgress(db, "first", "Rendering", progress);
      recoverJobs(db);
      return job?.id;
    });
    expect(starts.filter((id) => id === "first")).toHaveLength(5);
    expect(findJob(db, "first")!.state).toBe("failed");
  });

  test("that are given back have not been started", () => {
    takeJob(db);
    giveBackJob(db, "first");
    expect(findJob(db, "first")).toMatchObject({ state: "queued", attempts: 0 });
    finishJob(db, "first", { state: "done" });
    giveBackJob(db, "first");
    expect(findJob(db, "first")!.state).toBe("done");
  });
});

test("a database keeps what is in it when it is opened again, and one from the future is not touched", () => {
  const folder = mkdtempSync(join(tmpdir(), "glad-pan-db-"));
  try {
    const file = join(folder, "sub", "glad-pan.db");
    const first = openDatabase(file);
    insertFilm(first, { id: "film", name: "Kite.mp4", file: "/kite.mp4", info: INFO });
    first.close();
    const second = openDatabase(file);
    expect(listFilms(second)).toHaveLength(1);
    second.pragma("user_version = 99");
    second.close();
    expect(() => openDatabase(file)).toThrow("newer Glad Pan");
  } finally {
    rmSync(folder, { recursive: true });
  }
});
