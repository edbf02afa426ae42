import { beforeEach, expect, test } from "@jest/globals";
import { twoShotFilm } from "../../tests/support/two-shot-film";
import { hardTransition } from "~/core/shots/transition";
import type { Track } from "~/core/subjects/tracking/track";
import { saveTransitions, saveTracks, tracksOf } from "./analysis.server";
import type { Db } from "./database.server";
import { edit, stepHistory } from "./edits.server";
import { findFilm } from "./films.server";
import { listShots } from "./shots.server";
import { listFramings } from "./versions.server";

const cut = (frame: number) => hardTransition(frame, "cut");

let db: Db;
beforeEach(() => {
  db = twoShotFilm();
});

const send = (command: Parameters<typeof edit>[3]) => edit(db, "film", findFilm(db, "film")!.revision, command);
const step = (direction: "undo" | "redo") => stepHistory(db, "film", findFilm(db, "film")!.revision, direction);
const state = () => ({
  shots: listShots(db, "film"),
  framings: [...listFramings(db, "tall")].sort(),
  sensitivity: findFilm(db, "film")!.sensitivity,
});

test("every reshaping can be taken back and done again, with how they are framed, in any length of row", () => {
  saveTransitions(db, "film", {
    settled: 300,
    candidates: [
      { transition: cut(100), strength: 0.8 },
      { transition: hardTransition(180, "jump"), strength: 0.4 },
    ],
  });
  const states = [state()];
  const commands: Parameters<typeof edit>[3][] = [
    { type: "set-framing", versionId: "tall", shotIds: ["one", "two"], change: { manner: "chase", calm: 70 } },
    { type: "split-shot", frame: 40, kind: "turn" },
    { type: "split-shot", frame: 160, kind: "cut" },
    { type: "change-shots", shotIds: ["two", "film.160"], change: { excluded: true, name: "Bench" } },
    { type: "set-framing", versionId: "tall", shotIds: ["film.40"], change: { zoom: { kind: "fixed", factor: 2 } } },
    { type: "move-cut", shotId: "two", frame: 96 },
    { type: "join-shots", shotIds: ["two", "film.160"] },
    { type: "set-sensitivity", sensitivity: 80 },
    { type: "set-transitions", transitions: [cut(12)] },
  ];
  for (const command of commands) {
    send(command);
    states.push(state());
  }
  expect(states[8]!.shots.map(({ start, begins }) => [start, begins])).toEqual([
    [0, "cut"],
    [40, "turn"],
    [100, "cut"],
    [180, "jump"],
  ]);
  expect(states[8]!.sensitivity).toBe(80);
  // A part that was split off moves as the whole did.
  expect(states[2]!.framings.map(([id]) => id)).toEqual(["film.40", "one", "two"]);
  for (let i = commands.length - 1; i >= 0; i--) {
    step("undo");
    expect(state()).toEqual(states[i]);
  }
  for (let i = 1; i <= commands.length; i++) {
    step("redo");
    expect(state()).toEqual(states[i]);
  }
});

test("reshaped shots show the tracks of the parts they are made of", () => {
  const box = (x: number) => ({ x, y: 10, width: 40, height: 40 });
  const track = (id: string, start: number, frames: number, x: number): Track => ({
    id,
    kind: "face",
    start,
    boxes: Array.from({ length: frames }, () => box(x)),
    confidence: 0.9,
  });
  saveTracks(db, "film", { start: 0, end: 100 }, [track("a", 0, 100, 50)], []);
  saveTracks(db, "film", { start: 100, end: 300 }, [track("b", 100, 200, 52), track("c", 150, 20, 400)], []);
  const joined = tracksOf(db, "film", [{ start: 60, end: 160 }])[0]!;
  expect(joined.map(({ id, start, boxes }) => [id, start, boxes.length])).toEqual([
    ["a", 60, 100],
    ["c", 150, 10],
  ]);
  expect(tracksOf(db, "film", [{ start: 200, end: 300 }])[0]!.map(({ id }) => id)).toEqual(["b"]);
  // An analysis at other cuts leaves other ranges behind; no frame is counted twice.
  saveTracks(db, "film", { start: 0, end: 50 }, [track("d", 0, 50, 50)], []);
  expect(tracksOf(db, "film", [{ start: 0, end: 120 }])[0]!.map(({ id }) => id)).toEqual(["a"]);
});

test("transitions that do not fit the film are refused", () => {
  const before = state();
  expect(() => send({ type: "set-transitions", transitions: [cut(300)] })).toThrow("beyond the film's 300 frames");
  expect(() => send({ type: "move-cut", shotId: "one", frame: 5 })).toThrow("begins where the film does");
  expect(state()).toEqual(before);
});

test("what of the picture is active is kept by its parts, common to those joined, and must lie in the picture", () => {
  const [wide, tall] = [
    { x: 0, y: 140, width: 1920, height: 800 },
    { x: 240, y: 0, width: 1440, height: 1080 },
  ];
  const areas = () => listShots(db, "film").map(({ active }) => active);
  send({ type: "change-shots", shotIds: ["one"], change: { active: wide } });
  send({ type: "split-shot", frame: 40, kind: "cut" });
  expect(areas()).toEqual([wide, wide, null]);
  send({ type: "change-shots", shotIds: ["two"], change: { active: tall } });
  send({ type: "join-shots", shotIds: ["film.40", "two"] });
  expect(areas()).toEqual([wide, { x: 240, y: 140, width: 1440, height: 800 }]);
  step("undo");
  expect(areas()).toEqual([wide, wide, tall]);
  for (const active of [
    { ...wide, y: 300 },
    { ...wide, height: 8 },
  ]) {
    expect(() => send({ type: "change-shots", shotIds: ["one"], change: { active } })).toThrow("active area");
  }
});
