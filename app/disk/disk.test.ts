import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterEach, beforeEach, describe, expect, test } from "@jest/globals";
import { diskFullMessage, DiskFullError, freeBytes, isDiskFull, requireSpace } from "./disk-space.server";
import { lockFolder } from "./folder-lock.server";
import { keepReserve, spendReserve } from "./reserve.server";
import { isAside, moveWhole, writeAside, writeAsideFree } from "./write-aside.server";

let folder: string;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), "glad-pan-disk-"));
});
afterEach(() => rmSync(folder, { recursive: true }));

describe("writing aside", () => {
  test("gives a file its name when it is finished, and not before", async () => {
    const file = join(folder, "new", "film.mp4");
    const result = await writeAside(file, async (aside) => {
      writeFileSync(aside, "whole");
      expect(existsSync(file)).toBe(false);
      expect(isAside(readdirSync(join(folder, "new"))[0]!)).toBe(true);
      expect(aside).toMatch(/\.mp4$/);
      return 5;
    });
    expect([result, readFileSync(file, "utf8")]).toEqual([5, "whole"]);
  });

  test("leaves nothing behind when it fails, and what there was before as it is", async () => {
    const file = join(folder, "film.mp4");
    writeFileSync(file, "before");
    const failing = writeAside(file, async (aside) => {
      writeFileSync(aside, "half");
      throw new Error("cut short");
    });
    await expect(failing).rejects.toThrow("cut short");
    expect([readdirSync(folder), readFileSync(file, "utf8")]).toEqual([["film.mp4"], "before"]);
  });

  test("takes the first name that is free when the file is finished, and replaces nothing", async () => {
    const names = ["film.mp4", "film (2).mp4", "film (3).mp4"];
    writeFileSync(join(folder, "film (2).mp4"), "theirs");
    const written = await writeAsideFree(folder, names, async (aside) => {
      writeFileSync(aside, "ours");
      // It comes while ours is written.
      writeFileSync(join(folder, "film.mp4"), "theirs");
      return 5;
    });
    expect(written).toEqual({ name: "film (3).mp4", result: 5 });
    expect(readdirSync(folder).sort()).toEqual(["film (2).mp4", "film (3).mp4", "film.mp4"]);
    const texts = names.map((name) => readFileSync(join(folder, name), "utf8"));
    expect(texts).toEqual(["theirs", "theirs", "ours"]);
    const refused = writeAsideFree(folder, names, async (aside) => writeFileSync(aside, "ours"));
    await expect(refused).rejects.toThrow("no name is free");
    expect(readdirSync(folder)).toHaveLength(3);
  });

  test("moves a file into a folder that is not there yet", async () => {
    writeFileSync(join(folder, "a"), "film");
    await moveWhole(join(folder, "a"), join(folder, "b", "c"));
    expect([existsSync(join(folder, "a")), readFileSync(join(folder, "b", "c"), "utf8")]).toEqual([false, "film"]);
  });

  test("only its own names count as half-written", () => {
    expect([".part.mp4", "a.part.b", ".x.part.mp4"].map(isAside)).toEqual([false, false, false]);
  });
});

describe("space", () => {
  test("is told for a folder that is not there yet", () => {
    // Others write to the disk meanwhile.
    expect(Math.abs(freeBytes(join(folder, "not", "there")) - freeBytes(folder))).toBeLessThan(2 ** 30);
    expect(diskFullMessage(folder, "data")).toMatch(/^the disk is full: [\d.]+ (MB|GB) free in data$/);
  });

  test("is asked for before something large is begun", () => {
    expect(() => requireSpace(folder, "data", 1000, "the upload of kite.mp4")).not.toThrow();
    const ask = () => requireSpace(folder, "data", 1e18, "the upload of kite.mp4");
    expect(ask).toThrow(DiskFullError);
    expect(ask).toThrow(
      /^not enough space for the upload of kite\.mp4: it takes about .* are free in data\. Free some/,
    );
  });

  test("that is missing is told from other failures", () => {
    const failure = (code: string) => Object.assign(new Error("failed"), { code });
    expect(isDiskFull(failure("ENOSPC"), folder)).toBe(true);
    expect(isDiskFull(failure("SQLITE_FULL"), folder)).toBe(true);
    expect(isDiskFull(failure("SQLITE_IOERR_WRITE"), folder)).toBe(false);
    expect(isDiskFull(failure("ENOENT"), folder)).toBe(false);
    expect(isDiskFull(null, folder)).toBe(false);
  });
});

describe("a folder", () => {
  test("is one process's at a time, and free again when that lets go", () => {
    const lock = lockFolder(join(folder, "data"), "data", "http://127.0.0.1:4170");
    expect(() => lockFolder(join(folder, "data"), "data", "another")).toThrow(
      `the data folder data is in use by http://127.0.0.1:4170 (process ${process.pid}). Use that one`,
    );
    lock.release();
    lockFolder(join(folder, "data"), "data", "another").release();
  });

  test("that cannot be written to is told", () => {
    writeFileSync(join(folder, "file"), "");
    expect(() => lockFolder(join(folder, "file"), "file", "x")).toThrow("cannot write to the data folder file");
  });

  test("keeps some space, which can be spent once", () => {
    keepReserve(folder);
    expect(spendReserve(folder)).toBe(true);
    expect(spendReserve(folder)).toBe(false);
  });
});
