import { afterEach, beforeEach, expect, jest, test } from "@jest/globals";
import { INFO } from "../../tests/support/film-info";
import { WORKED_PROJECT } from "../../tests/support/worked-project";
import { everythingSetIn } from "~/core/edits/checkpoint";
import { type Db, openDatabase } from "./database.server";
import { edit, historyOf, stepHistory } from "./edits.server";
import { loadState } from "./film-state.server";
import { findFilm } from "./films.server";
import { addCheckpoint, listCheckpoints } from "./checkpoints.server";
import { insertProject, projectOf, putInPlace } from "./projects.server";
import {
  filesReplaced,
  forgetReplaced,
  hasReplaced,
  keepReplaced,
  lastReplaced,
  replacedBefore,
  restoreHistory,
} from "./replaced-sources.server";

let db: Db;
let now = 1000;
beforeEach(() => {
  db = openDatabase(":memory:");
  now = 1000;
  jest.spyOn(Date, "now").mockImplementation(() => now);
  insertProject(db, { id: "film", name: "Kite.mp4", file: "kite.mp4", info: INFO }, WORKED_PROJECT);
});
afterEach(() => void jest.restoreAllMocks());

const film = () => findFilm(db, "film")!;
const project = () => projectOf(db, film(), "f-1");
const rename = (name: string) =>
  edit(db, "film", film().revision, { type: "change-shots", shotIds: ["one"], change: { name } });
const nameOfFirst = () => project().shots[0]!.name;
const undo = () => stepHistory(db, "film", film().revision, "undo");
const redo = () => stepHistory(db, "film", film().revision, "redo");

test("what a film was is kept with its history, and put back as it was", () => {
  rename("Bench");
  rename("Wall");
  undo();
  const state = { id: "s", name: "Before lunch", madeAt: 7, difference: everythingSetIn(loadState(db, film())) };
  addCheckpoint(db, "film", state);
  const before = project();
  expect([hasReplaced(db, "film"), lastReplaced(db, "film")]).toEqual([false, null]);
  keepReplaced(db, "film", "kite.mp4", before);
  putInPlace(db, "film", "new.mp4", { ...WORKED_PROJECT, clips: [] });
  expect([historyOf(db, film()).undo, listCheckpoints(db, "film")]).toEqual(["Replaced the film's file", []]);

  const kept = lastReplaced(db, "film")!;
  expect([kept.replacedAt, kept.file, kept.project, kept.checkpoints]).toEqual([1000, "kite.mp4", before, [state]]);
  expect([hasReplaced(db, "film"), hasReplaced(db, "other")]).toEqual([true, false]);
  putInPlace(db, "film", kept.file, kept.project);
  restoreHistory(db, "film", kept);
  expect(listCheckpoints(db, "film")).toEqual([state]);
  expect(nameOfFirst()).toBe("Bench");
  redo();
  expect(nameOfFirst()).toBe("Wall");
  undo();
  undo();
  expect(nameOfFirst()).toBe("Opening");
});

test("of several earlier files the last comes first, and each is forgotten by itself, with the files that it needed", () => {
  for (const file of ["a.mp4", "b.mp4"]) {
    keepReplaced(db, "film", file, project());
    now += 500;
  }
  expect(lastReplaced(db, "film")!.file).toBe("b.mp4");
  const clips = ["clips/kite.mp4", "clips/boat.mp4"];
  expect(filesReplaced(db, "film")).toEqual(["a.mp4", ...clips, "b.mp4", ...clips]);
  expect(replacedBefore(db, 1500)).toEqual([{ filmId: "film", replacedAt: 1000, file: "a.mp4" }]);
  expect(replacedBefore(db, 1501)).toHaveLength(2);
  forgetReplaced(db, "film", 1500);
  expect(lastReplaced(db, "film")!.file).toBe("a.mp4");
  forgetReplaced(db, "film", 1000);
  expect(hasReplaced(db, "film")).toBe(false);
});
