import { expect, test } from "@jest/globals";
import type { Track } from "../tracking/track";
import { castOf, COLOURS } from "./cast";

const SHOT = { start: 0, end: 20 };
const PICTURE = { width: 1920, height: 1080 };
const track = (id: string, kind: Track["kind"], x: number, more: Partial<Track> = {}): Track => ({
  id,
  kind,
  start: 0,
  confidence: 0.9,
  ...more,
  boxes: Array.from({ length: 20 }, () => ({ x, y: 300, width: 150, height: 150 })),
});
const people = [
  { id: "p1", number: 0, name: "Ilse" },
  { id: "p8", number: 7, name: null },
];
const cast = (...tracks: Track[]) => castOf(tracks, SHOT, PICTURE, people);

test("people have their letter, their name and their colour; things a number and what colours are left", () => {
  const all = cast(
    track("a", "face", 300, { who: "p1" }),
    track("b", "face", 900, { who: "p8" }),
    track("kite", "object", 1300),
    track("boat", "object", 1500),
  );
  const by = new Map(all.map((one) => [one.track.id, one]));
  expect(by.get("a")).toMatchObject({ letter: "A", name: "Ilse", colour: 0 });
  expect(by.get("b")).toMatchObject({ letter: "H", name: null, colour: 7 % COLOURS });
  const things = all.filter(({ track: { kind } }) => kind === "object");
  expect(things.map(({ letter, colour, name }) => [letter, colour, name])).toEqual([
    ["1", 2, null],
    ["2", 3, null],
  ]);
});

test("somebody whose face is tracked is listed once, and somebody whom nobody knows is a thing among others", () => {
  const body = track("body", "person", 300);
  const head = track("head", "face", 320, { personId: "body", who: "p1" });
  expect(cast(body, head).map(({ track: { id } }) => id)).toEqual(["head"]);
  expect(cast(track("x", "face", 300, { who: "p99" }))).toMatchObject([{ letter: "1", name: null, colour: 0 }]);
  expect(cast()).toEqual([]);
});

test("more things than there are colours begin with the first again", () => {
  const things = Array.from({ length: COLOURS + 1 }, (_, i) => track(`t${i}`, "object", 200 * i));
  expect(cast(...things).map(({ colour }) => colour)).toEqual([0, 1, 2, 3, 4, 5, 0]);
});
