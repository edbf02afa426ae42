import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { existsSync, mkdtempSync, readdirSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import { USUAL_ATTENTION } from "~/core/subjects/attention/attention-settings";
import { pieceRange } from "~/core/time/pieces";
import type { FilmRow } from "~/db/films.server";
import { probeFilm } from "~/media/probe.server";
import { pieceFile } from "~/media/proxy.server";
import { CancelledError } from "~/media/tool.server";
import { piece, stopPieces } from "./proxy-pieces.server";
import { proxyFolder } from "~/db/workplace.server";

const folder = mkdtempSync(join(tmpdir(), "glad-pan-pieces-"));
const waits = () => new AbortController().signal;
let film: FilmRow;

beforeAll(async () => {
  process.env.GLAD_PAN_DATA = folder;
  const file = resolve("demo/ferrow-kite-day.mp4");
  const row = { name: "kite.mp4", file, revision: 0, findings: 0, sensitivity: 50, attention: USUAL_ATTENTION };
  const place = { putAway: false, deletedAt: null, addedAt: 0, fingerprint: null };
  film = { ...row, ...place, id: "film", info: await probeFilm(file) };
});
afterAll(async () => {
  await stopPieces();
  delete process.env.GLAD_PAN_DATA;
  rmSync(folder, { recursive: true, force: true });
});

test("a piece that somebody waits for is made before those that come earlier", async () => {
  const [one, other] = await Promise.all([piece(film, 5, waits()), piece(film, 5, waits())]);
  expect([one, other]).toEqual([pieceFile(proxyFolder("film"), 5), one]);
  expect((await probeFilm(one!)).frames).toBe(pieceRange(5, film.info).end - pieceRange(5, film.info).start);
  expect(existsSync(pieceFile(proxyFolder("film"), 0))).toBe(false);
  // The next one is under way without being asked for.
  expect(await piece(film, 6, waits())).toBe(pieceFile(proxyFolder("film"), 6));
  await stopPieces("film");
});

test("work that nobody waits for any more stops, and leaves nothing half", async () => {
  const controller = new AbortController();
  const waiting = piece(film, 12, controller.signal);
  controller.abort();
  await expect(waiting).rejects.toBeInstanceOf(CancelledError);
  const isHalf = (name: string) => name.includes(".part");
  for (let i = 0; i < 100 && readdirSync(proxyFolder("film")).some(isHalf); i++) {
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  expect(readdirSync(proxyFolder("film")).filter(isHalf)).toEqual([]);
  expect(existsSync(pieceFile(proxyFolder("film"), 12))).toBe(false);
});

test("stopping waits until nothing is under way", async () => {
  const waiting = piece(film, 9, waits());
  const refused = expect(waiting).rejects.toBeInstanceOf(CancelledError);
  await new Promise((resolve) => setTimeout(resolve, 400));
  await stopPieces();
  expect(readdirSync(proxyFolder("film")).filter((name) => name.includes(".part"))).toEqual([]);
  await refused;
});

test("a film has no piece after its last", async () => {
  expect(await piece(film, 999, waits())).toBeNull();
});
