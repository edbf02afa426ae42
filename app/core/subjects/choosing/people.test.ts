import { describe, expect, test } from "@jest/globals";
import { yuvPicture } from "../../../../tests/support/yuv-picture";
import { editTracks, rootPerson } from "../tracking/edit-tracks";
import { letterOf, letterOfId, numberOfLetter, type Person, personId, recognise } from "./people";
import { likeness, signatureOf } from "../detecting/signature";
import type { Track } from "../tracking/track";

type Colour = readonly [number, number, number];
const RED: Colour = [190, 60, 50];
const BLUE: Colour = [50, 80, 180];
const GREEN: Colour = [60, 150, 70];
const FACE = { x: 40, y: 10, width: 20, height: 26 };

/** A face above a shirt, before something grey. */
const shirt = (colour: Colour, light = 1) =>
  yuvPicture(100, 100, (x, y) =>
    y > 36 && x > 20 && x < 80 ? [colour[0] * light, colour[1] * light, colour[2] * light] : [120, 120, 120],
  );
const look = (colour: Colour, light = 1) => signatureOf(shirt(colour, light), "face", FACE)!;

let serial = 0;
function face(colour: Colour, start = 0, end = 50, light = 1): Track {
  const boxes = Array.from({ length: end - start }, () => FACE);
  return { id: `t${serial++}`, kind: "face", start, boxes, confidence: 0.9, signature: look(colour, light) };
}
const names = (tracks: Track[]) => tracks.map(({ who }) => who);

describe("what somebody wears", () => {
  test("tells them from others, and not from themselves in another light", () => {
    expect(likeness(look(RED), look(RED))).toBeGreaterThan(0.97);
    expect(likeness(look(RED), look(RED, 0.85))).toBeGreaterThan(0.75);
    expect(likeness(look(RED), look(BLUE))).toBeLessThan(0.4);
  });

  test("is unknown where nothing of it is in the picture", () => {
    expect(signatureOf(shirt(RED), "face", { x: 40, y: 95, width: 20, height: 26 })).toBeNull();
  });
});

test("letters begin again with a number, and are read in either case", () => {
  expect([0, 25, 26, 52].map(letterOf)).toEqual(["A", "Z", "A2", "A3"]);
  expect(["a", "Z", "A2", "b3", "A1"].map(numberOfLetter)).toEqual([0, 25, 26, 53, 0]);
  expect(["", "AA", "1", "A0", "A02", "Ä", "A12345"].map(numberOfLetter)).toEqual([
    null,
    null,
    null,
    null,
    null,
    null,
    null,
  ]);
  expect([personId(0), letterOfId("p28")]).toEqual(["p1", "B2"]);
});

describe("people", () => {
  test("are remembered by the mean of what they looked like, and by their faces rather than their bodies", () => {
    const body: Track = { ...face(BLUE), id: "body", kind: "person" };
    const [one] = recognise([], [{ ...face(RED), personId: "body" }, body]);
    expect([one!.signature, one!.seen]).toEqual([look(RED), 1]);
    const dimmer = face(RED, 0, 50, 0.9);
    const [again] = recognise([one!], [dimmer]);
    expect(again!.seen).toBe(2);
    expect(again!.signature).toEqual(look(RED).map((value, i) => Math.round((value + look(RED, 0.9)[i]!) / 2)));
    expect(one!.seen).toBe(1);
    const [unseen] = recognise([one!], [{ ...face(RED), signature: undefined }]);
    expect(unseen!.seen).toBe(1);
  });

  test("are the same in every shot, and get letters in the order in which they come up", () => {
    const shots = [[face(RED), face(BLUE)], [face(BLUE)], [face(GREEN), face(RED, 0, 50, 0.9)]];
    let people: Person[] = [];
    for (const tracks of shots) people = recognise(people, tracks);
    expect(shots.map(names)).toEqual([["p1", "p2"], ["p2"], ["p3", "p1"]]);
    expect(people.map(({ number }) => letterOf(number))).toEqual(["A", "B", "C"]);
  });

  test("who look alike are two when they are seen together, and one when they are not", () => {
    const together = [face(RED), face(RED)];
    expect(recognise([], together)).toHaveLength(2);
    const apart = [face(RED, 0, 20), face(RED, 30, 50)];
    recognise([], apart);
    expect(names(apart)).toEqual(["p1", "p1"]);
  });

  test("a face and its body are one", () => {
    const body: Track = { ...face(RED), id: "body", kind: "person" };
    const head = { ...face(RED), personId: "body" };
    recognise([], [head, body]);
    expect(head.who).toBe(body.who);
  });

  test("have letters beyond Z", () => {
    expect([0, 25, 26, 53].map(letterOf)).toEqual(["A", "Z", "A2", "B3"]);
  });
});

describe("what the editor says", () => {
  const nobody = { removed: [], joinedTo: null };
  const ids = (tracks: Track[]) => tracks.map(({ id }) => id);

  test("of two who are one holds through any row, and a circle ends", () => {
    const people = [
      { id: "p1", mergedInto: null },
      { id: "p2", mergedInto: "p1" },
      { id: "p3", mergedInto: "p2" },
      { id: "p4", mergedInto: "p5" },
      { id: "p5", mergedInto: "p4" },
    ];
    expect(rootPerson("p3", people)).toBe("p1");
    expect(["p4", "p5"]).toContain(rootPerson("p4", people));
    const [track] = editTracks([{ ...face(RED), who: "p3" }], new Map(), people);
    expect(track!.who).toBe("p1");
  });

  test("takes parts of a track away, or the whole of it", () => {
    const track = face(RED, 10, 40);
    const cut = new Map([[track.id, { ...nobody, removed: [{ start: 0, end: 20 }] }]]);
    const [left] = editTracks([track], cut, []);
    expect(left!.boxes.map(Boolean).indexOf(true)).toBe(10);
    const gone = new Map([[track.id, { ...nobody, removed: [{ start: 0, end: 99 }] }]]);
    expect(editTracks([track], gone, [])).toEqual([]);
  });

  test("joins a track to another, which goes on as it", () => {
    const [first, second] = [face(RED, 0, 20), face(RED, 30, 50)];
    const edits = new Map([[second.id, { ...nobody, joinedTo: first.id }]]);
    const joined = editTracks([first, second], edits, []);
    expect(ids(joined)).toEqual([first.id]);
    expect(joined[0]!.boxes.length).toBe(50);
    expect([19, 25, 30].map((i) => joined[0]!.boxes[i] !== null)).toEqual([true, false, true]);
  });
});
