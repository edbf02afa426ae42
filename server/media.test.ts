import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import type { Server } from "node:http";
import type { AddressInfo } from "node:net";
import { tmpdir } from "node:os";
import { dirname, join, resolve } from "node:path";
import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { loadImage } from "@napi-rs/canvas";
import express from "express";
import { newVersion } from "~/core/version/film-state";
import { freshShot } from "~/core/shots/shot";
import { openDatabase } from "~/db/database.server";
import { insertFilm } from "~/db/films.server";
import { finishJob, insertJob, takeJob } from "~/db/jobs.server";
import { saveShot } from "~/db/shots.server";
import { saveVersion } from "~/db/versions.server";
import { stopPieces } from "~/library/proxy/proxy-pieces.server";
import { exportsFolder, posterFile, useDatabase } from "~/db/workplace.server";
import { probeFilm } from "~/media/probe.server";
import { mediaRoutes } from "./media";

const FILM = resolve("tests/fixtures/two-shots.mp4");
const POSTER = "a picture of the film";
let folder = "";
let server: Server;
let address = "";

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), "glad-pan-media-"));
  process.env.GLAD_PAN_DATA = folder;
  const db = openDatabase(join(folder, "glad-pan.db"));
  useDatabase(db);
  const info = await probeFilm(FILM);
  for (const [id, file] of Object.entries({ film: FILM, gone: "/no/such/film.mp4" })) {
    insertFilm(db, { id, name: "two shots.mp4", file, info });
    saveVersion(db, id, newVersion({ id: `${id}-tall`, name: "Tall", width: 90, height: 160 }));
    saveShot(db, id, freshShot(`${id}-all`, { start: 0, end: info.frames }, null));
  }
  mkdirSync(dirname(posterFile("film")), { recursive: true });
  writeFileSync(posterFile("film"), POSTER);
  const app = express();
  app.use("/media", mediaRoutes());
  server = app.listen(0, "127.0.0.1");
  await new Promise((done) => server.once("listening", done));
  address = `http://127.0.0.1:${(server.address() as AddressInfo).port}/media`;
});
afterAll(async () => {
  await stopPieces();
  await new Promise((done) => server.close(done));
  useDatabase(null);
  delete process.env.GLAD_PAN_DATA;
  rmSync(folder, { recursive: true, force: true });
});

const ask = (path: string, headers: Record<string, string> = {}) => fetch(`${address}/${path}`, { headers });
const statusOf = async (path: string) => {
  const answer = await ask(path);
  await answer.arrayBuffer();
  return answer.status;
};
const windows = "windows=160,90,180";

describe("what is sent of a film", () => {
  test("can be asked for in ranges, and is kept by the browser", async () => {
    const whole = await ask("film/poster.jpg");
    expect([whole.status, whole.headers.get("content-type"), await whole.text()]).toEqual([200, "image/jpeg", POSTER]);
    expect(whole.headers.get("cache-control")).toContain("max-age=3600");
    const part = await ask("film/poster.jpg", { Range: "bytes=2-8" });
    expect([part.status, await part.text()]).toEqual([206, POSTER.slice(2, 9)]);
    expect(part.headers.get("content-range")).toBe(`bytes 2-8/${POSTER.length}`);
    expect((await ask("film/poster.jpg", { Range: "bytes=900-" })).status).toBe(416);
  });

  test("is there only for films that there are, and only what there is of them", async () => {
    const paths = [
      "other/poster.jpg",
      "..%2Ffilm/poster.jpg",
      "gone/poster.jpg",
      "film/proxy/x.mp4",
      "film/proxy/1234567.mp4",
      "film/proxy/900.mp4",
      "film/waveform-7.bin",
      "moving/nobody/light",
      "moving/nobody/first.png",
    ];
    expect(await Promise.all(paths.map(statusOf))).toEqual(paths.map(() => 404));
  });

  test("is made when it is first asked for", async () => {
    const piece = await ask("film/proxy/0.mp4");
    expect([piece.status, piece.headers.get("content-type")]).toEqual([200, "video/mp4"]);
    expect(
      Buffer.from(await piece.arrayBuffer())
        .subarray(4, 8)
        .toString(),
    ).toBe("ftyp");
  });

  test("says why it cannot be made", async () => {
    const piece = await ask("gone/proxy/0.mp4");
    expect(piece.status).toBe(422);
    expect(await piece.text()).toBe(
      "two shots.mp4: the file is missing. Add the same file from its new location to relink it.",
    );
  });
});

describe("a frame of a version", () => {
  test("is a picture of its size", async () => {
    const answer = await ask(`film/frame/film-tall/10.png?${windows}`);
    expect([answer.status, answer.headers.get("content-type")]).toEqual([200, "image/png"]);
    const picture = await loadImage(Buffer.from(await answer.arrayBuffer()));
    expect([picture.width, picture.height]).toEqual([90, 160]);
  });

  test("is none where what is asked for makes no sense", async () => {
    const frame = (query: string) => statusOf(`film/frame/film-tall/10.png?${query}`);
    const nonsense = [
      "windows=160,90",
      "windows=160,90,0",
      "windows=a,b,c",
      "windows=1e308,90,180",
      "windows=160,90,180,4",
      "",
      `${windows}&captions=a:2`,
      `${windows}&captions=a:-0.1`,
      `${windows}&captions=a`,
      `${windows}&captions=a:x`,
    ];
    expect(await Promise.all(nonsense.map(frame))).toEqual(nonsense.map(() => 404));
    expect(await frame(`${windows}&captions=a:0.5,b:1`)).toBe(200);
    expect(await statusOf(`film/frame/film-tall/x.png?${windows}`)).toBe(404);
  });

  test("is refused with the reason for a version, a frame or a layout that is not there", async () => {
    const refused = async (path: string) => {
      const answer = await ask(path);
      return [answer.status, await answer.text()];
    };
    expect((await refused(`film/frame/wide/10.png?${windows}`))[0]).toBe(409);
    expect(await refused(`film/frame/film-tall/90000.png?${windows}`)).toEqual([404, "The film has no such frame."]);
    expect(await refused(`film/frame/film-tall/10.png?${windows};160,90,180`)).toEqual([
      409,
      "The shot has another layout by now.",
    ]);
    expect((await refused(`gone/frame/gone-tall/10.png?${windows}`))[0]).toBe(422);
  });
});

describe("exports", () => {
  test("are sent when they are finished, to be kept under their names; nothing else in their folder is", async () => {
    const exported = exportsFolder("film");
    mkdirSync(exported, { recursive: true });
    for (const name of ["kite tall.mp4", "half.mp4", "notes.txt"]) writeFileSync(join(exported, name), name);
    const db = openDatabase(join(folder, "glad-pan.db"));
    const asked = (fileName: string) => ({ versionId: "film-tall", fileName });
    insertJob(db, { id: "one", filmId: "film", kind: "render", asked: asked("kite tall.mp4") });
    takeJob(db);
    finishJob(db, "one", {
      state: "done",
      result: { width: 90, height: 160, frames: 3, rate: "30", durationSeconds: 0.1, soundSeconds: null, bytes: 13 },
    });
    insertJob(db, { id: "two", filmId: "film", kind: "render", asked: asked("half.mp4") });
    db.close();
    const sent = await ask("film/exports/kite%20tall.mp4");
    expect([sent.status, sent.headers.get("content-type"), await sent.text()]).toEqual([
      200,
      "video/mp4",
      "kite tall.mp4",
    ]);
    expect(sent.headers.get("content-disposition")).toBe('attachment; filename="kite tall.mp4"');
    expect(await statusOf("film/exports/half.mp4")).toBe(404);
    expect(await statusOf("film/exports/notes.txt")).toBe(404);
    expect(await statusOf("gone/exports/kite%20tall.mp4")).toBe(404);
  });
});

describe("the work on a film", () => {
  test("is sent as a file that is named after it", async () => {
    const work = await ask("film/work.gladpan");
    expect([work.status, work.headers.get("content-type")]).toEqual([200, "application/zip"]);
    expect(work.headers.get("content-disposition")).toContain(".gladpan");
    expect(
      Buffer.from(await work.arrayBuffer())
        .subarray(0, 2)
        .toString(),
    ).toBe("PK");
  });

  test("with the film itself is refused where its file is gone", async () => {
    const work = await ask("gone/work.gladpan?with=film");
    expect(work.status).toBe(422);
    expect(await work.text()).toContain("wo shots.mp4: the file is missing");
  });
});
