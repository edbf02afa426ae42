import { beforeEach, expect, test } from "@jest/globals";
import { INFO } from "../../tests/support/film-info";
import { type Db, openDatabase } from "./database.server";
import { insertFilm } from "./films.server";
import {
  addNamedState,
  findNamedState,
  keepNamedState,
  listNamedStates,
  listStateNames,
  setDeleted,
} from "./named-states.server";

let db: Db;
const FIRST = { id: "a", name: "First pass", madeAt: 10, kept: { sensitivity: 30 } };
const SECOND = { id: "b", name: "For the client", madeAt: 20, kept: { sensitivity: 60 } };
beforeEach(() => {
  db = openDatabase(":memory:");
  for (const id of ["film", "other"]) insertFilm(db, { id, name: "Kite.mp4", file: "/kite.mp4", info: INFO });
  for (const state of [FIRST, SECOND]) addNamedState(db, "film", state);
});

test("states with a name are a film's own, the newest first", () => {
  expect(listNamedStates(db, "film")).toEqual([SECOND, FIRST]);
  expect(listStateNames(db, "film")).toEqual([
    { id: "b", name: "For the client", madeAt: 20 },
    { id: "a", name: "First pass", madeAt: 10 },
  ]);
  expect([listNamedStates(db, "other"), listStateNames(db, "other")]).toEqual([[], []]);
  expect([findNamedState(db, "film", "a"), findNamedState(db, "other", "a")]).toEqual([FIRST, null]);
});

test("of two of one moment the later one comes first", () => {
  addNamedState(db, "film", { ...SECOND, id: "0" });
  expect(listStateNames(db, "film").map(({ id }) => id)).toEqual(["0", "b", "a"]);
});

test("another state is kept under the same name", () => {
  keepNamedState(db, "film", "a", { sensitivity: 90 });
  expect(listNamedStates(db, "film").map(({ kept }) => kept.sensitivity)).toEqual([60, 90]);
});

test("a deleted one is nowhere until it is brought back", () => {
  setDeleted(db, "film", "b", true);
  expect([listNamedStates(db, "film"), findNamedState(db, "film", "b")]).toEqual([[FIRST], null]);
  expect(listStateNames(db, "film")).toHaveLength(1);
  setDeleted(db, "film", "b", false);
  expect(findNamedState(db, "film", "b")).toEqual(SECOND);
});
