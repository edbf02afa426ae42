import { afterEach, beforeEach, expect, jest, test } from "@jest/globals";
import type { Track } from "~/core/subjects/tracking/track";
import { saveTracks } from "~/db/analysis.server";
import type { Db } from "~/db/database.server";
import { listJobs } from "~/db/jobs.server";
import { listMarkTracks, putMark } from "~/db/marks.server";
import { useDatabase } from "~/db/workplace.server";
import { twoShotFilm } from "../../../tests/support/two-shot-film";
import { followUntracked } from "./marks.server";

const SHOT = { start: 0, end: 100 };
const BOX = { x: 500, y: 300, width: 200, height: 300 };
const KITE: Track = {
  id: "kite",
  kind: "object",
  start: 0,
  boxes: Array.from({ length: 100 }, () => BOX),
  confidence: 1,
};

let db: Db;
beforeEach(() => {
  db = twoShotFilm();
  useDatabase(db);
});
afterEach(() => {
  jest.restoreAllMocks();
  useDatabase(null);
});

test("a mark on what was found already is followed at once, and any other by a job, once", () => {
  saveTracks(db, "film", SHOT, [KITE]);
  putMark(db, "film", "kite", 10, BOX);
  putMark(db, "film", "rope", 10, { x: 1500, y: 100, width: 60, height: 60 });
  expect(followUntracked(db, "film")).toBe(true);
  expect(listMarkTracks(db, "film").map(({ basis }) => basis)).toEqual([expect.stringMatching(/^\["kite",0,100,/)]);
  expect(listJobs(db, "film").map(({ work }) => work)).toMatchObject([{ kind: "follow" }]);
  expect(followUntracked(db, "film")).toBe(false);
  expect(listJobs(db, "film")).toHaveLength(1);
});

test("what was found in a shot is read once, however much is marked in it", () => {
  const readsOf = (things: number): number => {
    for (let i = 0; i < things; i++) putMark(db, "film", `thing ${i}`, 10, { ...BOX, x: 10 * i });
    const prepared = jest.spyOn(db, "prepare");
    followUntracked(db, "film");
    return prepared.mock.calls.filter(([sql]) => sql.includes("FROM shot_tracks")).length;
  };
  saveTracks(db, "film", SHOT, [KITE]);
  const once = readsOf(1);
  expect(once).toBeGreaterThan(0);
  jest.restoreAllMocks();
  expect(readsOf(40)).toBe(once);
});
