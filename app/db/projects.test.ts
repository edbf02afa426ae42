import { beforeEach, describe, expect, test } from "@jest/globals";
import { INFO } from "../../tests/support/film-info";
import { WORKED_PROJECT } from "../../tests/support/worked-project";
import { readProject } from "~/core/formats/project";
import { USUAL_ATTENTION } from "~/core/subjects/attention/attention-settings";
import { countClips, hasClips, trimClip } from "./clips.server";
import { type Db, openDatabase } from "./database.server";
import { edit } from "./edits.server";
import { deleteFilm, findFilm, insertFilm } from "./films.server";
import { listAnalysed, readTracks } from "./analysis.server";
import { findMarkTrack, listTrackEdits, putMark, putTrackEdit } from "./marks.server";
import { insertProject, projectOf, putInPlace } from "./projects.server";

let db: Db;
beforeEach(() => {
  db = openDatabase(":memory:");
  insertProject(db, { id: "film", name: "Kite.mp4", file: "kite.mp4", info: INFO }, WORKED_PROJECT);
});
const film = () => findFilm(db, "film")!;

describe("a project", () => {
  test("is given back as it was stored, with all that is set and was found in the film", () => {
    expect(projectOf(db, film(), "f-1")).toEqual(WORKED_PROJECT);
    expect(readProject(JSON.stringify(WORKED_PROJECT))).toEqual(WORKED_PROJECT);
  });

  test("of a film about which nothing is known is one too", () => {
    insertFilm(db, { id: "fresh", name: "Boat.mp4", file: "boat.mp4", info: INFO });
    const { analysis, clips, captions } = projectOf(db, findFilm(db, "fresh")!, "f-2");
    expect([clips, captions]).toEqual([[], []]);
    expect(analysis).toEqual({ candidates: [], tracks: [], markTracks: [], undecoded: [], activity: "" });
    expect([hasClips(db, "fresh"), countClips(db, "film")]).toEqual([false, 2]);
  });

  test("takes the place of what a film was; nothing of that stays but its jobs, and what was seen of it is old", () => {
    edit(db, "film", film().revision, { type: "set-attention", attention: { ...USUAL_ATTENTION, shortestStay: 9 } });
    const before = film();
    const { analysis, ...work } = WORKED_PROJECT;
    const other = { ...work, clips: [], captions: [], marks: [], people: [], trackEdits: [] };
    const info = { ...INFO, frames: 300, bytes: 77 };
    putInPlace(db, "film", "new.mp4", { ...other, film: { ...work.film, info, fingerprint: "f-3", sensitivity: 5 } });
    const now = film();
    expect([now.file, now.fingerprint, now.info.bytes, now.sensitivity]).toEqual(["new.mp4", "f-3", 77, 5]);
    expect([now.revision - before.revision, now.findings - before.findings]).toEqual([1, 1]);
    const stored = projectOf(db, now, "f-3");
    expect(stored.versions).toEqual(other.versions);
    expect(stored.analysis).toEqual({ candidates: [], tracks: [], markTracks: [], undecoded: [], activity: "" });
    expect([stored.clips, stored.captions, stored.marks, stored.people, stored.trackEdits]).toEqual([
      [],
      [],
      [],
      [],
      [],
    ]);
    expect(db.prepare("SELECT COUNT(*) AS n FROM edits").get()).toEqual({ n: 0 });
    putInPlace(db, "film", "kite.mp4", { ...work, analysis });
    expect(projectOf(db, film(), "f-1")).toEqual(WORKED_PROJECT);
  });

  test("goes with its film, and leaves other films' alone", () => {
    const apart = JSON.parse(JSON.stringify(WORKED_PROJECT).replaceAll(/"(one|two|square|tall)"/g, '"other-$1"'));
    insertProject(
      db,
      { id: "other", name: "Kite.mp4", file: "kite.mp4", info: INFO },
      readProject(JSON.stringify(apart)),
    );
    deleteFilm(db, "film");
    expect(projectOf(db, findFilm(db, "other")!, "f-1")).toEqual(apart);
    const tables = db.prepare<[], { name: string }>("SELECT name FROM sqlite_master WHERE type = 'table'").all();
    for (const { name } of tables) {
      const columns = db.prepare<[], { name: string }>(`SELECT name FROM pragma_table_info('${name}')`).all();
      if (!columns.some((column) => column.name === "film_id")) continue;
      expect([name, db.prepare(`SELECT COUNT(*) AS n FROM ${name} WHERE film_id = 'film'`).get()]).toEqual([
        name,
        { n: 0 },
      ]);
    }
  });
});

test("in and out points are a clip's own", () => {
  trimClip(db, "film", { id: "c2", in: null, out: 70 });
  expect(projectOf(db, film(), "f-1").clips.map((clip) => [clip.in, clip.out])).toEqual([
    [null, 110],
    [null, 70],
  ]);
});

test("tracks are found by the range that was looked through, and by what marks they were made from", () => {
  expect(listAnalysed(db, "film")).toEqual([
    { start: 0, end: 120 },
    { start: 120, end: 300 },
  ]);
  expect(readTracks(db, "film", { start: 0, end: 100 })).toEqual([]);
  expect(readTracks(db, "other", { start: 0, end: 120 })).toEqual([]);
  expect(findMarkTrack(db, "film", "m 5")).toEqual(WORKED_PROJECT.analysis.markTracks[0]!.track);
  expect(findMarkTrack(db, "film", "m 6")).toBeNull();
});

test("marks and changes of tracks are set anew in their place, and taken away", () => {
  const box = { x: 1, y: 2, width: 3, height: 4 };
  putMark(db, "film", "m", 5, box);
  putMark(db, "film", "a", 9, box);
  const marks = () => projectOf(db, film(), "f-1").marks;
  expect(marks()).toEqual([
    { thing: "a", frame: 9, box },
    { thing: "m", frame: 5, box },
  ]);
  putMark(db, "film", "m", 5, null);
  expect(marks()).toEqual([{ thing: "a", frame: 9, box }]);
  putTrackEdit(db, "film", "s0-face-1", { removed: [], joinedTo: "s0-face-2" });
  expect([...listTrackEdits(db, "film")]).toEqual([["s0-face-1", { removed: [], joinedTo: "s0-face-2" }]]);
  putTrackEdit(db, "film", "s0-face-1", null);
  expect(listTrackEdits(db, "film").size).toBe(0);
});
