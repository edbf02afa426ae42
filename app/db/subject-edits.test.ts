import { beforeEach, describe, expect, test } from "@jest/globals";
import { freshShot } from "~/core/shots/shot";
import { INFO } from "../../tests/support/film-info";
import type { Db } from "./database.server";
import { openDatabase } from "./database.server";
import { edit, historyOf, stepHistory } from "./edits.server";
import { findFilm, insertFilm } from "./films.server";
import { findMarkTrack, listMarks, listTrackEdits, saveMarkTrack } from "./marks.server";
import { listPeople, savePeople } from "./people.server";
import { listShots, saveShot } from "./shots.server";
import { insertVersion } from "./versions.server";

let db: Db;
beforeEach(() => {
  db = openDatabase(":memory:");
  insertFilm(db, { id: "film", name: "film.mp4", file: "/film.mp4", info: INFO });
  insertVersion(db, "film", { id: "tall", name: "Tall", width: 1080, height: 1920 });
  saveShot(db, "film", freshShot("one", { start: 0, end: 300 }, null));
  savePeople(db, "film", [
    { id: "p1", number: 0, signature: [1, 2], seen: 2 },
    { id: "p2", number: 1, signature: null, seen: 1 },
  ]);
});
const revision = () => findFilm(db, "film")!.revision;
const send = (command: Parameters<typeof edit>[3]) => edit(db, "film", revision(), command);
const undo = () => stepHistory(db, "film", revision(), "undo");
const redo = () => stepHistory(db, "film", revision(), "redo");
const subject = () => listShots(db, "film")[0]!.subject;
const BOX = { x: 10, y: 20, width: 30, height: 40 };
const putMark = (frame: number, box: typeof BOX | null, follows: string | null = "track:mark-m") =>
  send({
    type: "put-mark",
    thing: "m",
    frame,
    box,
    follow: follows === null ? null : { shotId: "one", subject: follows },
  });

describe("marks", () => {
  test("are put, corrected, taken away and given back, and the shot follows them meanwhile", () => {
    putMark(50, BOX);
    putMark(120, { ...BOX, x: 200 });
    putMark(50, { ...BOX, x: 15 });
    expect(listMarks(db, "film").map(({ frame, box }) => [frame, box.x])).toEqual([
      [50, 15],
      [120, 200],
    ]);
    expect(subject()).toBe("track:mark-m");
    expect(historyOf(db, "film").undo).toBe("mark");
    undo();
    expect(listMarks(db, "film")[0]!.box).toEqual(BOX);
    undo();
    undo();
    expect(listMarks(db, "film")).toEqual([]);
    expect(subject()).toBe("auto");
    redo();
    expect(listMarks(db, "film")).toEqual([{ thing: "m", frame: 50, box: BOX }]);
    putMark(50, null, "auto");
    expect([listMarks(db, "film"), subject()]).toEqual([[], "auto"]);
    undo();
    expect([listMarks(db, "film").length, subject()]).toEqual([1, "track:mark-m"]);
  });

  test("have tracks by what they were made from", () => {
    expect(findMarkTrack(db, "film", "basis")).toBeNull();
    const track = { id: "mark-m", kind: "mark" as const, start: 0, boxes: [BOX, null], confidence: 0.5 };
    saveMarkTrack(db, "film", "basis", track);
    expect(findMarkTrack(db, "film", "basis")).toEqual(track);
  });

  test("in a shot that is not there are refused, and nothing is kept", () => {
    const command = {
      type: "put-mark",
      thing: "m",
      frame: 5,
      box: BOX,
      follow: { shotId: "x", subject: "auto" },
    } as const;
    expect(() => send(command)).toThrow("this shot is not there any more");
    expect(listMarks(db, "film")).toEqual([]);
  });
});

test("changes of a track are kept by its id, and taken back to what they were", () => {
  const first = { removed: [{ start: 0, end: 10 }], joinedTo: null };
  send({ type: "edit-track", trackId: "t", edit: first });
  send({ type: "edit-track", trackId: "t", edit: { removed: [], joinedTo: "u" } });
  expect(listTrackEdits(db, "film").get("t")).toEqual({ removed: [], joinedTo: "u" });
  undo();
  expect(listTrackEdits(db, "film").get("t")).toEqual(first);
  undo();
  expect(listTrackEdits(db, "film").size).toBe(0);
});

describe("people", () => {
  test("are named and merged, and an analysis that goes on leaves that alone", () => {
    send({ type: "change-person", person: { id: "p2", name: "Ilse", mergedInto: "p1" } });
    savePeople(db, "film", [{ id: "p2", number: 1, signature: [5], seen: 9 }]);
    expect(listPeople(db, "film")[1]).toMatchObject({ name: "Ilse", mergedInto: "p1", seen: 9, signature: [5] });
    undo();
    expect(listPeople(db, "film")[1]).toMatchObject({ name: null, mergedInto: null });
  });

  test("who are not there are refused", () => {
    expect(() => send({ type: "change-person", person: { id: "p9", name: "X", mergedInto: null } })).toThrow(
      "not there",
    );
  });
});
