/** The library that the hostile tests have to do with: two short films, analysed. */
import { readdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { expect } from "@playwright/test";
import { LONG_WORK, TestServer } from "../support/server";
import { demand, json, type RawRequest, send as sendTo, upload } from "../support/raw-request";

export const server = new TestServer();
export const send = (request: RawRequest) => sendTo(server.url, request);
export const CLIP = readFileSync("tests/fixtures/two-shots.mp4");
export const FRAMES = 99;

/** A film of the library, and another one with a shot of it; once `fillLibrary` is done. */
export const known = { film: "", version: "", shots: [] as string[], other: "", otherShot: "" };

/** How far a job is changes by itself: of jobs only this is looked at. */
const COLUMNS_OF_JOBS = "id, film_id, kind, state, payload, position, paused";

/** All that could have been changed: every row of every table, and the files there are. */
export function everything(): string {
  const tables = server.query<{ name: string }>(
    "SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%' ORDER BY name",
  );
  const rows = tables.map(({ name }) => [
    name,
    server.query(`SELECT ${name === "jobs" ? COLUMNS_OF_JOBS : "*"} FROM ${name} ORDER BY 1, 2`),
  ]);
  const files = readdirSync(server.data, { recursive: true })
    .map(String)
    .filter((name) => !/-(wal|shm)$/.test(name))
    .sort();
  return JSON.stringify([rows, files], (_, value: unknown) => (Buffer.isBuffer(value) ? value.toString("hex") : value));
}

async function addFilm(name: string): Promise<string> {
  const { headers } = await demand(server.url, 201, upload(name, CLIP));
  return String(headers["glad-pan-film"]);
}

/** Ids of what a film has in a table, the oldest first. */
export const idsOf = (table: string, filmId: string): string[] =>
  server
    .query<{ id: string }>(`SELECT id FROM ${table} WHERE film_id = '${filmId}' ORDER BY rowid`)
    .map(({ id }) => id);

/** Waits until all work has come to its end. */
export const allDone = (): Promise<void> =>
  expect
    .poll(() => server.query<{ state: string }>("SELECT state FROM jobs WHERE state <> 'done'"), { timeout: LONG_WORK })
    .toEqual([]);

/** Starts the server and adds two films, the first under a name that is no film's. */
export async function fillLibrary(): Promise<void> {
  await server.start();
  known.film = await addFilm("kite.html");
  known.other = await addFilm("other.mp4");
  await allDone();
  known.version = idsOf("versions", known.film)[0]!;
  known.shots = idsOf("shots", known.film);
  known.otherShot = idsOf("shots", known.other)[0]!;
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
  x: 160,
  y: 90,
  height: 180,
  easing: null,
  ...change,
});
