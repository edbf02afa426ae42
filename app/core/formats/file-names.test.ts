import { expect, test } from "@jest/globals";
import { freeName, nameBy, namePartsOf, titleOf, USUAL_PATTERN } from "./file-names";

const PARTS = { film: "Kite Day", version: "Reel", size: "1080x1920", date: "2026-11-27", number: "2" };

test("a pattern's parts are put in, and what is none stays", () => {
  expect(nameBy(USUAL_PATTERN, PARTS)).toBe("Kite Day 1080x1920");
  expect(nameBy("{date}_{number}_{version}{what}", PARTS)).toBe("2026-11-27_2_Reel{what}");
});

test("a name leads nowhere else, is not hidden, and not empty", () => {
  expect(nameBy("../{film}", { ...PARTS, film: "a/b\\c:d" })).toBe("-a-b-c-d");
  expect(nameBy("...", PARTS)).toBe("Kite Day");
  expect(nameBy("{film}", { ...PARTS, film: "x".repeat(300) })).toHaveLength(200);
  // A file system counts bytes: three for each of these, and four for one that is two units of a string.
  expect(nameBy("{film}", { ...PARTS, film: "凧".repeat(300) })).toBe("凧".repeat(66));
  expect(nameBy("{film}", { ...PARTS, film: `${"x".repeat(198)}🪁🪁` })).toBe("x".repeat(198));
  expect(nameBy("{__proto__}{toString}", PARTS)).toBe("{__proto__}{toString}");
  expect(nameBy("{film}", { ...PARTS, film: "" })).toBe("export");
});

test("a name that is taken gets a number", () => {
  const taken = new Set(["a.mp4", "a (2).mp4"]);
  expect(freeName("a", ".mp4", (name) => taken.has(name))).toBe("a (3).mp4");
  expect(freeName("b", ".mp4", (name) => taken.has(name))).toBe("b.mp4");
});

test("what a pattern says of a version is its film's title, its shape, the day and its number", () => {
  const now = new Date(2026, 10, 27, 9, 5);
  expect(namePartsOf("kite.final.mp4", { name: "Tall", width: 1080, height: 1920 }, 2, now)).toEqual({
    film: "kite.final",
    version: "Tall",
    size: "1080x1920",
    date: "2026-11-27",
    number: "2",
  });
  expect([titleOf("kite"), titleOf(".hidden"), titleOf("a.b.mov")]).toEqual(["kite", ".hidden", "a.b"]);
});
