import { beforeEach, describe, expect, test } from "@jest/globals";
import { INFO } from "../../tests/support/film-info";
import { newVersion } from "~/core/version/film-state";
import { freshShot } from "~/core/shots/shot";
import {
  dropChunks,
  dropFeatures,
  findCandidates,
  findTransitions,
  insertChunk,
  listChunks,
  saveTransitions,
} from "./analysis.server";
import { type Db, openDatabase } from "./database.server";
import { loadState } from "./film-state.server";
import {
  deleteFilm,
  findFilm,
  hasFilm,
  insertFilm,
  listFilms,
  raiseRevision,
  readFilms,
  setSensitivity,
} from "./films.server";
import { UnreadableFilm } from "./readable";
import { listShots, saveShot } from "./shots.server";
import { findVersion, saveVersion, listHandKeys, setShotInVersion, setHandKey } from "./versions.server";

let db: Db;
beforeEach(() => {
  db = openDatabase(":memory:");
  insertFilm(db, { id: "film", name: "Kite.mp4", file: "/kite.mp4", info: INFO });
});

const count = (table: string) => db.prepare<[], { n: number }>(`SELECT count(*) AS n FROM ${table}`).get()!.n;

describe("films", () => {
  test("are kept with what was measured of them", () => {
    expect(findFilm(db, "film")).toMatchObject({
      name: "Kite.mp4",
      file: "/kite.mp4",
      info: INFO,
      revision: 0,
      sensitivity: 50,
    });
    expect(findFilm(db, "other")).toBeNull();
    raiseRevision(db, "film");
    setSensitivity(db, "film", 70);
    expect(findFilm(db, "film")).toMatchObject({ revision: 1, sensitivity: 70 });
    expect(listFilms(db).map(({ id }) => id)).toEqual(["film"]);
  });

  test("take all that belongs to them along when they go", () => {
    saveVersion(db, "film", newVersion({ id: "tall", name: "Tall", width: 1080, height: 1920 }));
    saveShot(db, "film", freshShot("one", { start: 0, end: 300 }, null));
    setShotInVersion(db, "tall", "one", { movement: "still" });
    setHandKey(db, "tall", { pane: 0, frame: 3, x: 1, y: 2, height: 3, easing: "hold" });
    saveTransitions(db, "film", { candidates: [], settled: 0 });
    insertChunk(db, "film", { range: { start: 0, end: 2 }, features: new Uint8Array(4), detected: [], camera: [] });
    deleteFilm(db, "film");
    for (const table of [
      "films",
      "versions",
      "shots",
      "shot_framings",
      "hand_keys",
      "analysis_chunks",
      "transition_candidates",
    ]) {
      expect([table, count(table)]).toEqual([table, 0]);
    }
  });
});

describe("a film of which something stored makes no sense", () => {
  beforeEach(() => {
    insertFilm(db, { id: "broken", name: "Broken.mp4", file: "/broken.mp4", info: INFO });
  });

  test("is told apart, and keeps nobody from the others", () => {
    for (const info of ["{", '{"frames": "many"}']) {
      db.prepare("UPDATE films SET info = ? WHERE id = 'broken'").run(info);
      const { films, broken } = readFilms(db);
      expect(films.map(({ id }) => id)).toEqual(["film"]);
      expect(broken).toMatchObject([{ id: "broken", name: "Broken.mp4" }]);
      expect(broken[0]!.problem).toContain("what Glad Pan has stored of Broken.mp4 cannot be read");
      expect(() => findFilm(db, "broken")).toThrow(UnreadableFilm);
      expect(hasFilm(db, "broken")).toBe(true);
    }
  });

  test("says so when its shots, versions or keys are read", () => {
    const film = findFilm(db, "broken")!;
    saveVersion(db, "broken", newVersion({ id: "tall", name: "Tall", width: 1080, height: 1920 }));
    saveShot(db, "broken", freshShot("one", { start: 0, end: 300 }, null));
    expect(loadState(db, film).shots).toHaveLength(1);
    for (const damage of [
      `UPDATE shots SET protect = '{"x": 1}'`,
      "UPDATE shots SET protect = '{'",
      "INSERT INTO hand_keys (version_id, pane, frame, x, y, height, easing) VALUES ('tall', 0, 3, 1, 1, 5, 'sideways')",
    ]) {
      db.exec("SAVEPOINT undamaged");
      db.exec(damage);
      expect(() => loadState(db, film)).toThrow(UnreadableFilm);
      db.exec("ROLLBACK TO undamaged");
    }
  });
});

describe("shots", () => {
  test("come back as they were stored, in the order of time", () => {
    const second = {
      ...freshShot("b", { start: 90, end: 300 }, null),
      mixed: { start: 84, end: 96 },
      begins: "dissolve" as const,
    };
    const first = { ...freshShot("a", { start: 0, end: 90 }, null), name: "Bench", excluded: true, carry: true };
    for (const shot of [second, first]) saveShot(db, "film", shot);
    expect(listShots(db, "film")).toEqual([first, second]);
    saveShot(db, "film", { ...first, name: null, follow: { kind: "none" } });
    expect(listShots(db, "film")[0]).toMatchObject({ id: "a", name: null, follow: { kind: "none" } });
  });

  test("must end after they begin, and belong to a film", () => {
    expect(() => saveShot(db, "film", freshShot("x", { start: 5, end: 5 }, null))).toThrow("CHECK");
    expect(() => saveShot(db, "nowhere", freshShot("x", { start: 5, end: 6 }, null))).toThrow("FOREIGN KEY");
  });
});

describe("what an analysis has seen", () => {
  test("is kept in pieces, in order, and a piece that is seen again takes the place of the first", () => {
    const chunk = (start: number, byte: number) => ({
      range: { start, end: start + 10 },
      features: Uint8Array.of(byte),
      detected: [{ frame: start, looked: ["face" as const], step: 2, detections: [] }],
      camera: [],
    });
    for (const piece of [chunk(10, 1), chunk(0, 2), chunk(10, 3)]) insertChunk(db, "film", piece);
    expect(listChunks(db, "film").map(({ range, features }) => [range.start, features[0]])).toEqual([
      [0, 2],
      [10, 3],
    ]);
    dropFeatures(db, "film", 10);
    expect(listChunks(db, "film").map(({ features }) => features.length)).toEqual([0, 1]);
    dropChunks(db, "film", 19);
    expect(listChunks(db, "film").map(({ range }) => range.start)).toEqual([10]);
  });

  test("has no candidates before it has looked", () => {
    expect(findCandidates(db, "film")).toEqual([]);
    const candidates = [
      { transition: { frame: 4, kind: "fade" as const, range: { start: 2, end: 7 } }, strength: 0.4 },
    ];
    saveTransitions(db, "film", { candidates, settled: 12 });
    expect(findCandidates(db, "film")).toEqual(candidates);
    expect(findTransitions(db, "film")!.settled).toBe(12);
  });
});

test("versions belong to their film, and a key at a frame is the last that was set", () => {
  saveVersion(db, "film", newVersion({ id: "tall", name: "Tall", width: 1080, height: 1920 }));
  expect(findVersion(db, "film", "tall")!.name).toBe("Tall");
  expect(findVersion(db, "other", "tall")).toBeNull();
  for (const x of [1, 2]) setHandKey(db, "tall", { pane: 0, frame: 3, x, y: 2, height: 3, easing: null });
  expect(listHandKeys(db, "tall")).toEqual([{ pane: 0, frame: 3, x: 2, y: 2, height: 3, easing: null }]);
});
