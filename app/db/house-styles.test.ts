import { beforeEach, expect, test } from "@jest/globals";
import { newVersion } from "~/core/version/film-state";
import { styleOf } from "~/core/edits/house-style";
import { type Db, openDatabase } from "./database.server";
import { deleteStyle, findStyle, findStyleByName, listStyles, saveStyle } from "./house-styles.server";

let db: Db;
const versions = styleOf([newVersion({ id: "v", name: "Tall", width: 1080, height: 1920 })]);
const FERRY = { id: "f", name: "ferry", versions };
const ALMANAC = { id: "a", name: "Almanac", versions };
beforeEach(() => {
  db = openDatabase(":memory:");
  for (const style of [FERRY, ALMANAC]) saveStyle(db, style);
});

test("house styles come by their names, and are found by them however they are capitalised", () => {
  expect(listStyles(db)).toEqual([ALMANAC, FERRY]);
  expect([findStyle(db, "f"), findStyle(db, "x")]).toEqual([FERRY, null]);
  expect([findStyleByName(db, " FERRY "), findStyleByName(db, "fer")]).toEqual([FERRY, null]);
});

test("one is saved anew in its place, but not under the name of another one", () => {
  const two = { ...FERRY, name: "Ferry", versions: [...versions, ...versions] };
  saveStyle(db, two);
  expect(listStyles(db)).toEqual([ALMANAC, two]);
  expect(() => saveStyle(db, { ...FERRY, name: "ALMANAC" })).toThrow("called “Almanac” already exists");
  expect(listStyles(db)).toEqual([ALMANAC, two]);
});

test("one is deleted by itself", () => {
  deleteStyle(db, "f");
  expect(listStyles(db)).toEqual([ALMANAC]);
});
