import { beforeEach, describe, expect, test } from "@jest/globals";
import { INFO } from "../../tests/support/film-info";
import { newVersion } from "~/core/version/film-state";
import { freshShot } from "~/core/shots/shot";
import { hardTransition } from "~/core/shots/transition";
import { type Db, openDatabase } from "./database.server";
import { edit, stepHistory } from "./edits.server";
import { loadState } from "./film-state.server";
import { findFilm, insertFilm } from "./films.server";
import { takeFoundShots } from "./found-shots.server";
import { listShots, saveShot } from "./shots.server";
import { saveVersion } from "./versions.server";

let db: Db;
beforeEach(() => {
  db = openDatabase(":memory:");
  insertFilm(db, { id: "f", name: "Kite.mp4", file: "/kite.mp4", info: INFO });
  saveVersion(db, "f", newVersion({ id: "tall", name: "Tall", width: 1080, height: 1920 }));
  saveShot(db, "f", freshShot("f.0", { start: 0, end: 300 }, null));
});

const revision = () => findFilm(db, "f")!.revision;
const send = (command: Parameters<typeof edit>[3]) => edit(db, "f", revision(), command);
const step = (direction: "undo" | "redo") => stepHistory(db, "f", revision(), direction);
const find = (...ranges: [number, number][]) =>
  takeFoundShots(
    db,
    "f",
    ranges.map(([start, end]) => ({
      range: { start, end },
      begins: start === 0 ? null : hardTransition(start, "cut"),
      active: null,
    })),
  );
const starts = () => listShots(db, "f").map(({ start }) => start);
const says = () => [...loadState(db, findFilm(db, "f")!).versions[0]!.shots].map(([id, { calm }]) => [id, calm]);

describe("what is done before shots are found", () => {
  test("stays when they are, and is undone and redone as if they had been there", () => {
    send({ type: "split-shot", frame: 150, kind: "switch" });
    send({ type: "set-framing", versionId: "tall", shotIds: ["f.150"], change: { calm: 90 } });
    send({
      type: "set-key",
      versionId: "tall",
      key: { pane: 0, frame: 250, x: 960, y: 540, height: 1080, easing: null },
    });
    find([0, 80], [80, 200]);
    expect(starts()).toEqual([0, 80, 150, 200]);
    expect(says()).toEqual([
      ["f.150", 90],
      ["f.200", 90],
    ]);
    find([200, 240], [240, 300]);
    const done = listShots(db, "f");
    expect(done.map(({ begins }) => begins)).toEqual(["cut", "cut", "switch", "cut", "cut"]);

    step("undo");
    step("undo");
    expect(says()).toEqual([]);
    step("undo");
    expect(starts()).toEqual([0, 80, 200, 240]);
    expect(step("undo")).toBeNull();
    for (let i = 0; i < 3; i++) step("redo");
    expect(starts()).toEqual([0, 80, 150, 200, 240]);
    expect(loadState(db, findFilm(db, "f")!).versions[0]!.handKeys).toHaveLength(1);
  });

  test("a film of which an older Glad Pan has looked at a part gets the rest", () => {
    db.prepare("UPDATE shots SET end_frame = 80").run();
    find([80, 200], [200, 300]);
    expect(listShots(db, "f").map(({ start, end }) => [start, end])).toEqual([
      [0, 80],
      [80, 200],
      [200, 300],
    ]);
  });
});
