/** The library that the hostile tests have to do with: two short films, analysed. */
import { readdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import Database from "better-sqlite3";
import { expect } from "@playwright/test";
import { LONG_WORK, TestServer } from "../support/server";
import { json, type RawRequest, send as sendTo, upload } from "../support/raw-request";

export const server = new TestServer();
export const send = (request: RawRequest) => sendTo(server.url, request);
export const CLIP = readFileSync("demo/clips/two-shots.mp4");
export const FRAMES = 99;

/** A film of the library, and a shot of another one; once `fillLibrary` is done. */
export const known = { film: "", version: "", shots: [] as string[], otherShot: "" };

/** Rows of the database, read past the server. */
export function query<T>(sql: string): T[] {
  const db = new Database(join(server.data, "glad-pan.db"), { readonly: true });
  try {
    return db.prepare<[], T>(sql).all();
  } finally {
    db.close();
  }
}

/** All that could have been changed: what can be edited of the films, the jobs, and the files there are. */
export function everything(): string {
  const tables = [
    "films",
    "shots",
    "versions",
    "shot_framings",
    "hand_keys",
    "marks",
    "people",
    "track_edits",
    "edits",
  ];
  const rows = tables.map((table) => query(`SELECT * FROM ${table} ORDER BY 1, 2`));
  const jobs = query("SELECT id, kind, state FROM jobs ORDER BY id");
  const files = readdirSync(server.data, { recursive: true })
    .map(String)
    .filter((name) => !/-(wal|shm)$/.test(name))
    .sort();
  return JSON.stringify([rows, jobs, files]);
}

async function addFilm(name: string): Promise<string> {
  const answer = await send(upload(name, CLIP));
  expect(answer.status, answer.body).toBe(201);
  return String(answer.headers["glad-pan-film"]);
}

/** Starts the server and adds two films, the first under a name that is no film's. */
export async function fillLibrary(): Promise<void> {
  await server.start();
  known.film = await addFilm("kite.html");
  const other = await addFilm("other.mp4");
  await expect
    .poll(() => query<{ state: string }>("SELECT state FROM jobs").every(({ state }) => state === "done"), {
      timeout: LONG_WORK,
    })
    .toBe(true);
  const of = (table: string, id: string) =>
    query<{ id: string }>(`SELECT id FROM ${table} WHERE film_id = '${id}' ORDER BY rowid`).map((row) => row.id);
  known.version = of("versions", known.film)[0]!;
  known.shots = of("shots", known.film);
  known.otherShot = of("shots", other)[0]!;
  expect(known.shots).toHaveLength(2);
  // Somebody's half-written file, and one of another time.
  writeFileSync(join(server.data, "films", known.film, ".secret.part.mp4"), "half");
}

/** A change of the first film, to the state that it has at first. */
export const edit = (command: unknown, revision = 0) =>
  json(`/films/${known.film}/edit`, { do: "edit", revision, command });
export const key = (change: object = {}) => ({
  pane: 0,
  frame: 5,
  x: 640,
  y: 360,
  height: 720,
  easing: null,
  ...change,
});
