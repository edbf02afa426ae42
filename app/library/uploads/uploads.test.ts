import { afterEach, beforeEach, expect, test } from "@jest/globals";
import { mkdirSync, mkdtempSync, rmSync, utimesSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { bytesToCome, filmNameOf, findUpload, listUploads } from "./uploads.server";

let folder: string;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), "glad-pan-uploads-"));
  process.env.GLAD_PAN_DATA = folder;
});
afterEach(() => {
  delete process.env.GLAD_PAN_DATA;
  rmSync(folder, { recursive: true });
});

const [FIRST, SECOND] = ["0".repeat(32), "a".repeat(32)];
function upload(id: string, arrived: number, kept: string, minutesAgo = 0): void {
  const file = join(folder, "uploads", id);
  mkdirSync(join(folder, "uploads"), { recursive: true });
  writeFileSync(file, Buffer.alloc(arrived));
  writeFileSync(`${file}.json`, kept);
  const when = Date.now() / 1000 - 60 * minutesAgo;
  utimesSync(file, when, when);
}
const said = (size: number, filename: string, changed?: string) =>
  JSON.stringify({ size, metadata: { filename, changed } });

test("what has arrived of uploads is told, the last one first", () => {
  expect(listUploads()).toEqual([]);
  upload(FIRST, 30, said(100, "C:\\films\\kite.mp4", "1700000000000"), 20);
  upload(SECOND, 10, said(50, "tide.mov"));
  expect(listUploads()).toMatchObject([
    { id: SECOND, name: "tide.mov", size: 50, arrived: 10, changedAt: null },
    { id: FIRST, name: "kite.mp4", size: 100, arrived: 30, changedAt: 1_700_000_000_000 },
  ]);
  // Of what nothing has come for a while, nothing is waited for.
  expect(bytesToCome()).toBe(40);
});

test("what is no upload is none, whatever lies in the folder", () => {
  upload(FIRST, 3, "{ no json");
  upload("letter", 3, said(4, "letter"));
  expect(listUploads()).toEqual([]);
  for (const id of ["../glad-pan.db", "", SECOND]) expect(findUpload(id)).toBeNull();
});

test("a name is one line of what every file system takes", () => {
  expect(filmNameOf("../../kite\u202e\n.mp4")).toBe("kite.mp4");
  expect(filmNameOf(undefined)).toBe("film");
  const long = filmNameOf(`${"ü".repeat(300)}.mp4`);
  expect(Buffer.byteLength(long)).toBeLessThanOrEqual(200);
  expect(long).toMatch(/^ü.*ü\.mp4$/);
});
