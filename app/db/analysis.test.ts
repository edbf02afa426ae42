import { expect, test } from "@jest/globals";
import { hardTransition } from "~/core/shots/transition";
import { twoShotFilm } from "../../tests/support/two-shot-film";
import {
  beginPass,
  dropChunks,
  dropFeatures,
  findPass,
  findTransitions,
  insertChunk,
  listChunks,
  listUndecoded,
  saveTransitions,
  saveUndecoded,
} from "./analysis.server";
import { deleteFilm } from "./films.server";

test("frames that could not be decoded are kept in order, joined where they touch, and go with the film", () => {
  const db = twoShotFilm();
  expect(listUndecoded(db, "film")).toEqual([]);
  saveUndecoded(db, "film", [{ start: 40, end: 42 }]);
  saveUndecoded(db, "film", [
    { start: 30, end: 40 },
    { start: 90, end: 91 },
  ]);
  // An analysis that goes on may see the same again.
  saveUndecoded(db, "film", [{ start: 90, end: 91 }]);
  expect(listUndecoded(db, "film")).toEqual([
    { start: 30, end: 42 },
    { start: 90, end: 91 },
  ]);
  deleteFilm(db, "film");
  expect(listUndecoded(db, "film")).toEqual([]);
});

const chunk = (start: number, end: number) => ({
  range: { start, end },
  features: Uint8Array.from([start, end]),
  detected: [{ frame: start, looked: [], step: 1, detections: [] }],
  camera: [],
});

test("what was seen of a film is kept in pieces, loses its features when they are done with, and is forgotten", () => {
  const db = twoShotFilm();
  for (const [start, end] of [
    [20, 40],
    [0, 20],
  ] as const) {
    insertChunk(db, "film", chunk(start, end));
  }
  const ranges = () => listChunks(db, "film").map(({ range }) => range.start);
  expect(listChunks(db, "film").map(({ features }) => [...features])).toEqual([
    [0, 20],
    [20, 40],
  ]);
  dropFeatures(db, "film", 20);
  expect(listChunks(db, "film").map(({ features }) => features.length)).toEqual([0, 2]);
  dropChunks(db, "film", 39);
  expect(ranges()).toEqual([20]);
  db.prepare('UPDATE analysis_chunks SET detections = \'{"detected": [{}], "camera": []}\'').run();
  expect(() => listChunks(db, "film")).toThrow();
});

test("a part that is begun forgets what was seen before it, and has the cut that it begins with once", () => {
  const db = twoShotFilm();
  const cut = (frame: number, strength: number) => ({ transition: hardTransition(frame, "cut"), strength });
  expect([findPass(db, "film"), findTransitions(db, "film")]).toEqual([null, null]);
  saveTransitions(db, "film", { candidates: [cut(50, 0.4), cut(100, 0.9)], settled: 120 });
  insertChunk(db, "film", chunk(0, 20));
  beginPass(db, "film", { start: 100, end: 200 }, cut(100, 0.7));
  expect(findTransitions(db, "film")).toEqual({ candidates: [cut(50, 0.4), cut(100, 0.7)], settled: 100 });
  expect([findPass(db, "film"), listChunks(db, "film")]).toEqual([{ start: 100, end: 200 }, []]);
  beginPass(db, "film", { start: 0, end: 50 }, null);
  expect(findTransitions(db, "film")).toEqual({ candidates: [cut(50, 0.4), cut(100, 0.7)], settled: 0 });
});
