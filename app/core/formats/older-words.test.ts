import { expect, test } from "@jest/globals";
import { asWrittenToday } from "./older-words";

test("a document of version 1 is read in the words of today", () => {
  const shot = { manner: "glide", enlargement: 1.5, hold: 2, turns: "move", follow: { kind: "speaker-move" } };
  const old = {
    format: "glad-pan/looks",
    version: 1,
    looks: [{ kind: "jolt", seen: true }],
    people: [{ seen: 12 }],
    shots: [
      shot,
      { turns: [{ frame: 4, by: "jump" }], transition: "turn" },
      { begins: "turn", follow: { kind: "turns", turns: [{ frame: 4, trackIds: ["a"] }] } },
    ],
    repeated: { stretches: [[10, 30]] },
    trim: { in: 2, out: null, drops: [{ start: 5, end: 7 }] },
    keys: [{ easing: "hold", by: "hand" }],
  };
  expect(asWrittenToday(old)).toEqual({
    format: "glad-pan/flags",
    version: 2,
    flags: [{ kind: "jolt", reviewed: true }],
    people: [{ seen: 12 }],
    shots: [
      { movement: "glide", largestScale: 1.5, shortestStay: 2, switchBy: "pan", follow: { kind: "speaker-pan" } },
      { switches: [{ frame: 4, by: "cut" }], transition: "switch" },
      { begins: "switch", follow: { kind: "switches", switches: [{ frame: 4, trackIds: ["a"] }] } },
    ],
    repeated: { ranges: [[10, 30]] },
    trim: { in: 2, out: null, leftOut: [{ start: 5, end: 7 }] },
    keys: [{ easing: "hold", by: "hand" }],
  });
});

test("any other document stays the very same", () => {
  for (const other of [null, 5, [{ version: 1 }], { version: 2, manner: "glide" }]) {
    expect(asWrittenToday(other)).toBe(other);
  }
});

test("a document that is nested without end is left for its schema to refuse", () => {
  const deep = JSON.parse(`{"version":1,"x":${"[".repeat(50_000)}${"]".repeat(50_000)}}`) as object;
  expect(asWrittenToday(deep)).toMatchObject({ version: 2 });
});
