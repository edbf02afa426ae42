import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { mkdirSync, mkdtempSync, realpathSync, rmSync, symlinkSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { openedFolders, requireOpen, viewFolder } from "./media-folders.server";

const root = realpathSync(mkdtempSync(join(tmpdir(), "glad-pan-media-")));
const path = (name: string) => join(root, name);

beforeAll(() => {
  for (const folder of ["films/coast", "films-too", "secret"]) mkdirSync(path(folder), { recursive: true });
  for (const file of [
    "films/kite 10.mp4",
    "films/kite 9.MOV",
    "films/notes.txt",
    "films/.hidden.mp4",
    "secret/a.mp4",
  ]) {
    writeFileSync(path(file), "x");
  }
  symlinkSync(path("secret"), path("films/way-out"));
  symlinkSync(path("secret/a.mp4"), path("films/out.mp4"));
  symlinkSync(path("films/kite 9.MOV"), path("films/coast/again.mov"));
  process.env.GLAD_PAN_MEDIA = [path("films"), path("gone")].join(":");
});
afterAll(() => {
  delete process.env.GLAD_PAN_MEDIA;
  rmSync(root, { recursive: true });
});

const names = (entries: { name: string }[]) => entries.map(({ name }) => name);

test("the folders that were opened, as far as they are there", async () => {
  expect(await openedFolders()).toEqual([{ name: "films", path: path("films") }]);
  expect(await viewFolder(null)).toMatchObject({ here: null, up: null, folders: [{ name: "films" }], films: [] });
});

test("a folder shows its folders and films, and nothing that a link leads out to", async () => {
  const films = await viewFolder(path("films"));
  expect([names(films.folders), names(films.films), films.up]).toEqual([
    ["coast"],
    ["kite 9.MOV", "kite 10.mp4"],
    null,
  ]);
  const coast = await viewFolder(path("films/coast"));
  expect([names(coast.films), coast.up]).toEqual([["again.mov"], path("films")]);
});

test.each(["secret", "films/../secret", "films/way-out", "films/out.mp4", "films-too", "..", "films/gone.mp4"])(
  "%s is not open",
  async (name) => {
    await expect(requireOpen(`${root}/${name}`)).rejects.toThrow("This folder or film does not exist here.");
    await expect(viewFolder(`${root}/${name}`)).rejects.toThrow("This folder or film does not exist here.");
  },
);

test("nothing is open where nothing was opened", async () => {
  process.env.GLAD_PAN_MEDIA = "";
  await expect(requireOpen("/")).rejects.toThrow("This folder or film does not exist");
  process.env.GLAD_PAN_MEDIA = path("films");
});
