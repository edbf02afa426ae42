import {
  copyFileSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  renameSync,
  rmSync,
  utimesSync,
  writeFileSync,
} from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterEach, beforeEach, describe, expect, test } from "@jest/globals";
import { newVersion } from "~/core/version/film-state";
import { findFilm, insertFilm, listFilms } from "~/db/films.server";
import { listJobs } from "~/db/jobs.server";
import { saveVersion, listVersions } from "~/db/versions.server";
import { INFO } from "../../../tests/support/film-info";
import {
  addFilm,
  filmFolders,
  forgetRemoved,
  linkFilm,
  reconcileFilms,
  removeFilm,
  wholeOrNothing,
} from "../films/films.server";
import { clearHalfUploads, expireUploads, removeEmptyFolders, sweepAsides } from "./upkeep.server";
import { db, filmFolder, filmsFolder, sourceFile, useDatabase } from "~/db/workplace.server";

const CLIP = "tests/fixtures/upright-25.mp4";
const ASIDE = ".0b0c0d0e-0000-4000-8000-000000000000.part.mp4";
const DAY_MS = 24 * 60 * 60 * 1000;

let folder: string;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), "glad-pan-upkeep-"));
  process.env.GLAD_PAN_DATA = join(folder, "data");
});
afterEach(() => {
  useDatabase(null);
  rmSync(folder, { recursive: true });
});

/** What a start does to what it finds. */
async function tidied(): Promise<void> {
  forgetRemoved();
  await reconcileFilms(filmFolders());
}

const touch = (file: string, daysAgo = 0) => {
  mkdirSync(join(file, ".."), { recursive: true });
  writeFileSync(file, "x");
  const time = new Date(Date.now() - daysAgo * DAY_MS);
  utimesSync(file, time, time);
};

describe("upkeep", () => {
  test("sweeps half-written files that an ended server left, and nothing else", async () => {
    for (const name of [ASIDE, "proxy.mp4", ".part.mp4"]) touch(join(folder, "films", "a", name));
    await sweepAsides(folder, Date.now() - DAY_MS);
    expect(readdirSync(join(folder, "films", "a"))).toHaveLength(3);
    await sweepAsides(folder, Date.now() + 1);
    expect(readdirSync(join(folder, "films", "a")).sort()).toEqual([".part.mp4", "proxy.mp4"]);
    await sweepAsides(join(folder, "not", "there"), Date.now());
  });

  test("clears folders with nothing in them, from the innermost on", () => {
    mkdirSync(join(folder, "films", "a", "exports"), { recursive: true });
    touch(join(folder, "films", "b", "proxy.mp4"));
    mkdirSync(join(folder, "films", "b", "exports"));
    removeEmptyFolders(join(folder, "films"), Date.now() - DAY_MS);
    expect(readdirSync(join(folder, "films"))).toEqual(["a", "b"]);
    removeEmptyFolders(join(folder, "films"), Date.now() + 1);
    expect(readdirSync(join(folder, "films"))).toEqual(["b"]);
    expect(readdirSync(join(folder, "films", "b"))).toEqual(["proxy.mp4"]);
  });

  test("forgets uploads to which nothing was added for a week", () => {
    for (const [name, days] of [
      ["old", 8],
      ["going-on", 1],
      ["new", 0],
    ] as const) {
      touch(join(folder, name), days);
      touch(join(folder, `${name}.json`), name === "new" ? 0 : 9);
    }
    expireUploads(folder);
    expect(readdirSync(folder).sort()).toEqual(["going-on", "going-on.json", "new", "new.json"]);
  });

  test("clears halves of uploads", () => {
    for (const name of ["whole", "whole.json", "bytes-only", "said-only.json"]) touch(join(folder, name));
    clearHalfUploads(folder);
    expect(readdirSync(folder).sort()).toEqual(["whole", "whole.json"]);
  });
});

describe("after a server that was killed, or a database that was put back", () => {
  test("a film that the library does not know is taken in, under its name and its id", async () => {
    const id = await addFilm(CLIP, "Morning tide.mov", "copy");
    useDatabase(null);
    for (const name of readdirSync(join(folder, "data")).filter((file) => file.startsWith("glad-pan.db"))) {
      rmSync(join(folder, "data", name));
    }
    await tidied();
    expect(listFilms(db())).toMatchObject([{ id, name: "Morning tide.mov" }]);
    expect(listJobs(db(), id).map(({ kind }) => kind)).toEqual(["proxy", "analyse"]);
    await tidied();
    expect(listFilms(db())).toHaveLength(1);
  });

  test("also one without its name; one that cannot be read is left where it is", async () => {
    mkdirSync(filmFolder("older"), { recursive: true });
    copyFileSync(CLIP, join(filmFolder("older"), "source.mp4"));
    touch(join(filmFolder("broken"), "source.mp4"));
    await tidied();
    expect(listFilms(db()).map(({ name }) => name)).toEqual(["Recovered film.mp4"]);
    expect(existsSync(join(filmFolder("broken"), "source.mp4"))).toBe(true);
  });

  test("a removal is finished, and a folder without a film's file is cleared", async () => {
    const id = await addFilm(CLIP, "kite.mp4", "copy");
    touch(join(filmFolder(id), "removed"));
    touch(join(filmFolder("half"), "film.json"));
    await tidied();
    expect([listFilms(db()), readdirSync(filmsFolder())]).toEqual([[], []]);
  });
});

describe("a film that is made in several steps", () => {
  const add = (id: string) => insertFilm(db(), { id, name: "Joined.mp4", file: `films/${id}/source.mp4`, info: INFO });

  test("is there when all of them are done", async () => {
    const made = await wholeOrNothing("joined", async () => {
      add("joined");
      touch(join(filmFolder("joined"), "source.mp4"));
      return 5;
    });
    await reconcileFilms(filmFolders());
    expect([made, listFilms(db()).map(({ id }) => id)]).toEqual([5, ["joined"]]);
  });

  test("is gone with all that is its when one fails, or when the server is killed before the last", async () => {
    for (const step of [() => add("failed"), () => {}]) {
      const failing = wholeOrNothing("failed", async () => {
        step();
        throw new Error("the second clip is missing");
      });
      await expect(failing).rejects.toThrow("the second clip is missing");
      expect([listFilms(db()), existsSync(filmFolder("failed"))]).toEqual([[], false]);
    }
    // As far as a killed server gets.
    void wholeOrNothing("killed", async () => {
      add("killed");
      touch(join(filmFolder("killed"), "source.mp4"));
      await new Promise(() => {});
    });
    await new Promise((done) => setTimeout(done, 100));
    expect(listFilms(db())).toHaveLength(1);
    await tidied();
    expect([listFilms(db()), existsSync(filmFolder("killed"))]).toEqual([[], false]);
  });
});

test("a film is removed with all that is its, and what is no film removes nothing", async () => {
  const id = await addFilm(CLIP, "kite.mp4", "copy");
  const other = await addFilm(CLIP, "bench.mp4", "copy");
  touch(join(folder, "precious"));
  for (const wrong of ["", ".", "..", "../../precious", "../../../precious", "nobody"]) {
    expect(await removeFilm(wrong)).toBe(false);
    if (!/^\w+$/.test(wrong)) expect(() => filmFolder(wrong)).toThrow("not the id of a film");
  }
  expect(await removeFilm(id)).toBe(true);
  expect([existsSync(filmFolder(id)), existsSync(sourceFile(findFilm(db(), other)!))]).toEqual([false, true]);
  expect(existsSync(join(folder, "precious"))).toBe(true);
});

test("a list of files is no film, whatever it is called and wherever it lies", async () => {
  copyFileSync(CLIP, join(folder, "private.mp4"));
  const list = join(folder, "source-a.ffconcat");
  writeFileSync(list, "ffconcat version 1.0\nfile private.mp4\n");
  await expect(linkFilm(list)).rejects.toThrow("source-a.ffconcat: this is a list of files, not a film");
  expect(listFilms(db())).toEqual([]);
});

test("the data folder can be moved", async () => {
  const id = await addFilm(CLIP, "kite.mp4", "copy");
  useDatabase(null);
  renameSync(join(folder, "data"), join(folder, "elsewhere"));
  process.env.GLAD_PAN_DATA = join(folder, "elsewhere");
  expect(sourceFile(findFilm(db(), id)!)).toBe(join(folder, "elsewhere", "films", id, "source.mp4"));
  expect(existsSync(sourceFile(findFilm(db(), id)!))).toBe(true);
});

test("what is stored is on the disk when it is answered for", () => {
  expect(db().pragma("synchronous", { simple: true })).toBe(2);
  insertFilm(db(), { id: "a", name: "a", file: "films/a/source.mp4", info: INFO });
  saveVersion(db(), "a", newVersion({ id: "v", name: "Tall", width: 1080, height: 1920 }));
  expect(listVersions(db(), "a")).toHaveLength(1);
});
