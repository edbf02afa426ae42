import { beforeEach, expect, test } from "@jest/globals";
import { newVersion } from "~/core/version/film-state";
import { presetOf } from "~/core/edits/preset";
import { type Db, openDatabase } from "./database.server";
import { deletePreset, findPreset, findPresetByName, listPresets, readPresets, savePreset } from "./presets.server";

let db: Db;
const versions = presetOf([newVersion({ id: "v", name: "Tall", width: 1080, height: 1920 })]);
const FERRY = { id: "f", name: "ferry", versions };
const ALMANAC = { id: "a", name: "Almanac", versions };
beforeEach(() => {
  db = openDatabase(":memory:");
  for (const preset of [FERRY, ALMANAC]) savePreset(db, preset);
});

test("presets come by their names, and are found by them however they are capitalised", () => {
  expect(listPresets(db)).toEqual([ALMANAC, FERRY]);
  expect([findPreset(db, "f"), findPreset(db, "x")]).toEqual([FERRY, null]);
  expect([findPresetByName(db, " FERRY "), findPresetByName(db, "fer")]).toEqual([FERRY, null]);
});

test("one is saved anew in its place, but not under the name of another one", () => {
  const two = { ...FERRY, name: "Ferry", versions: [...versions, ...versions] };
  savePreset(db, two);
  expect(listPresets(db)).toEqual([ALMANAC, two]);
  expect(() => savePreset(db, { ...FERRY, name: "ALMANAC" })).toThrow("called “Almanac” already exists");
  expect(listPresets(db)).toEqual([ALMANAC, two]);
});

test("one is deleted by itself", () => {
  deletePreset(db, "f");
  expect(listPresets(db)).toEqual([ALMANAC]);
});

test("one that cannot be read is named, fails nothing, and is replaced or deleted", () => {
  const broken = { id: "f", name: "ferry" };
  for (const stored of ["{", '[{"name": 3}]']) {
    db.prepare("UPDATE presets SET versions = ? WHERE id = 'f'").run(stored);
    expect(readPresets(db)).toEqual({ presets: [ALMANAC], broken: [broken] });
    expect([findPreset(db, "f"), findPresetByName(db, "Ferry")]).toEqual([null, null]);
    expect(() => savePreset(db, { ...FERRY, id: "other" })).toThrow("called “ferry” already exists");
  }
  savePreset(db, FERRY);
  expect(readPresets(db)).toEqual({ presets: [ALMANAC, FERRY], broken: [] });
});
