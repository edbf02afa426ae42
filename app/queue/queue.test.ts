import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import { Worker } from "node:worker_threads";
import { afterEach, beforeEach, describe, expect, jest, test } from "@jest/globals";
import { INFO } from "../../tests/support/film-info";
import { openDatabase } from "~/db/database.server";
import { insertFilm } from "~/db/films.server";
import type { JobKind } from "~/core/film/film-status";
import type { NewWork } from "~/db/job-work";
import { findJob, insertJob, setPaused } from "~/db/jobs.server";

jest.unstable_mockModule("~/media/worker-thread.server", () => ({
  startWorker: (_built: string, _source: string, workerData: unknown) =>
    new Worker(resolve("tests/support/stand-in-worker.mjs"), { workerData }),
}));
const { changeJob, startQueue, stopQueue, wakeQueue } = await import("./queue.server");
const { databaseFile, db, useDatabase } = await import("~/db/workplace.server");

type Does = "waits" | "ends" | "throws" | "cannot write" | "vanishes";
const add = (id: string, does: Does, kind: JobKind = "proxy") =>
  db().transaction(() => {
    insertJob(db(), { id, filmId: "film", kind, asked: {} } as NewWork & { id: string; filmId: string });
    db().prepare("UPDATE jobs SET payload = ? WHERE id = ?").run(JSON.stringify({ does }), id);
  })();
const stateOf = (id: string) => findJob(db(), id)!.state;
/** Waits until jobs are in these states, and no longer than anything of this can take. */
async function until(states: Record<string, string>): Promise<void> {
  const now = () => Object.fromEntries(Object.keys(states).map((id) => [id, stateOf(id)]));
  for (let i = 0; i < 400 && JSON.stringify(now()) !== JSON.stringify(states); i++) {
    await new Promise((done) => setTimeout(done, 25));
  }
  expect(now()).toEqual(states);
}

let folder = "";
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), "glad-pan-queue-"));
  process.env.GLAD_PAN_DATA = folder;
  useDatabase(openDatabase(databaseFile()));
  insertFilm(db(), { id: "film", name: "Kite.mp4", file: "/kite.mp4", info: INFO });
});
afterEach(async () => {
  await stopQueue();
  const left = globalThis as { gladPanQueue?: { spare: { terminate: () => Promise<number> } | null } };
  await left.gladPanQueue?.spare?.terminate();
  delete left.gladPanQueue;
  useDatabase(null);
  delete process.env.GLAD_PAN_DATA;
  rmSync(folder, { recursive: true });
});

describe("the queue", () => {
  test("does nothing before it is started, and then two jobs at a time beside one that somebody waits for", async () => {
    for (const id of ["a", "b", "c"]) add(id, "waits");
    wakeQueue();
    expect(stateOf("a")).toBe("queued");
    startQueue();
    await until({ a: "running", b: "running", c: "queued" });
    add("mark", "waits", "follow");
    add("other", "waits", "follow");
    wakeQueue();
    await until({ a: "running", b: "running", mark: "running", other: "queued", c: "queued" });
    // One mark is followed at a time, and a place beside it is left for everything else.
    await changeJob("a", "cancel");
    await until({ a: "cancelled", other: "queued", c: "queued" });
    await changeJob("b", "cancel");
    await until({ b: "cancelled", mark: "running", other: "queued", c: "running" });
    await changeJob("mark", "cancel");
    await until({ mark: "cancelled", other: "running", c: "running" });
  });

  test("takes up what an ended server has left, and goes from one job to the next", async () => {
    add("left", "ends");
    db().prepare("UPDATE jobs SET state = 'running', attempts = 1 WHERE id = 'left'").run();
    for (const id of ["a", "b", "c", "d"]) add(id, "ends");
    startQueue();
    await until({ left: "done", a: "done", b: "done", c: "done", d: "done" });
  });

  test("says of a job what has become of it, whatever has become of its worker", async () => {
    add("throws", "throws");
    add("vanishes", "vanishes");
    add("full", "cannot write");
    startQueue();
    await until({ throws: "failed", vanishes: "failed", full: "done" });
    expect(findJob(db(), "throws")!.error).toContain("the picture is broken");
    expect(findJob(db(), "vanishes")!.error).toBe("The job ended without a result. Start it again.");
    expect(findJob(db(), "full")!.work!.result).toEqual({ frames: 3 });
  });
});

describe("a job", () => {
  test("gives its place to the next while it is paused, and goes on when it is resumed", async () => {
    for (const id of ["a", "b", "c"]) add(id, "waits");
    startQueue();
    await until({ a: "running", b: "running", c: "queued" });
    await changeJob("a", "pause");
    await until({ a: "queued", b: "running", c: "running" });
    await changeJob("b", "cancel");
    await until({ a: "queued", c: "running" });
    await changeJob("a", "resume");
    await until({ a: "running", c: "running" });
    // One that was given back has not failed at the beginning.
    expect(findJob(db(), "a")!.attempts).toBeLessThan(3);
  });

  test("that waits can be paused and cancelled, and one that was cancelled or failed is begun again", async () => {
    for (const id of ["a", "b", "c", "d"]) add(id, "waits");
    startQueue();
    await until({ a: "running", b: "running" });
    await changeJob("c", "pause");
    await changeJob("d", "cancel");
    expect([stateOf("c"), stateOf("d")]).toEqual(["queued", "cancelled"]);
    await changeJob("a", "cancel");
    expect(stateOf("c")).toBe("queued");
    await changeJob("d", "retry");
    await until({ b: "running", c: "queued", d: "running" });
    setPaused(db(), "c", false);
  });
});

test("stopping gives back what is under way, and takes up nothing more", async () => {
  for (const id of ["a", "b", "c"]) add(id, "waits");
  startQueue();
  await until({ a: "running", b: "running" });
  await stopQueue();
  expect(["a", "b", "c"].map(stateOf)).toEqual(["queued", "queued", "queued"]);
  wakeQueue();
  startQueue();
  expect(["a", "b", "c"].map(stateOf)).toEqual(["queued", "queued", "queued"]);
});
