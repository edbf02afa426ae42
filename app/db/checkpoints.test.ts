import { beforeEach, expect, test } from "@jest/globals";
import { INFO } from "../../tests/support/film-info";
import { type Db, openDatabase } from "./database.server";
import { insertFilm } from "./films.server";
import {
  addCheckpoint,
  findCheckpoint,
  saveCheckpoint,
  listCheckpoints,
  listCheckpointNames,
  setDeleted,
} from "./checkpoints.server";

let db: Db;
const FIRST = { id: "a", name: "First pass", madeAt: 10, difference: { sensitivity: 30 } };
const SECOND = { id: "b", name: "For the client", madeAt: 20, difference: { sensitivity: 60 } };
beforeEach(() => {
  db = openDatabase(":memory:");
  for (const id of ["film", "other"]) insertFilm(db, { id, name: "Kite.mp4", file: "/kite.mp4", info: INFO });
  for (const state of [FIRST, SECOND]) addCheckpoint(db, "film", state);
});

test("states with a name are a film's own, the newest first", () => {
  expect(listCheckpoints(db, "film")).toEqual([SECOND, FIRST]);
  expect(listCheckpointNames(db, "film")).toEqual([
    { id: "b", name: "For the client", madeAt: 20 },
    { id: "a", name: "First pass", madeAt: 10 },
  ]);
  expect([listCheckpoints(db, "other"), listCheckpointNames(db, "other")]).toEqual([[], []]);
  expect([findCheckpoint(db, "film", "a"), findCheckpoint(db, "other", "a")]).toEqual([FIRST, null]);
});

test("of two of one moment the later one comes first", () => {
  addCheckpoint(db, "film", { ...SECOND, id: "0" });
  expect(listCheckpointNames(db, "film").map(({ id }) => id)).toEqual(["0", "b", "a"]);
});

test("another state is kept under the same name", () => {
  saveCheckpoint(db, "film", "a", { sensitivity: 90 });
  expect(listCheckpoints(db, "film").map(({ difference }) => difference.sensitivity)).toEqual([60, 90]);
});

test("a deleted one is nowhere until it is brought back", () => {
  setDeleted(db, "film", "b", true);
  expect([listCheckpoints(db, "film"), findCheckpoint(db, "film", "b")]).toEqual([[FIRST], null]);
  expect(listCheckpointNames(db, "film")).toHaveLength(1);
  setDeleted(db, "film", "b", false);
  expect(findCheckpoint(db, "film", "b")).toEqual(SECOND);
});
