import { describe, expect, test } from "@jest/globals";
import { TWO_SHOTS } from "../../../tests/support/film-state";
import { freshShot } from "../shots/shot";
import { hardTransition } from "../shots/transition";
import { type FilmState, newVersion, type VersionState } from "../version/film-state";
import { brokenInvariant, MAX_VERSIONS } from "./invariants";

const ONE = freshShot("one", { start: 0, end: 100 }, null);
const TWO = freshShot("two", { start: 100, end: 300 }, hardTransition(100, "cut"));
const KEY = { pane: 0, frame: 10, x: 960, y: 540, height: 1080, easing: null };
const TALL: VersionState = {
  ...newVersion({ id: "tall", name: "Tall", width: 1080, height: 1920 }),
  shots: new Map([["one", { calm: 60 }]]),
  handKeys: [KEY],
};
const BOX = { x: 10, y: 10, width: 50, height: 50 };
const SOUND: FilmState = {
  ...TWO_SHOTS,
  shots: [ONE, TWO],
  versions: [TALL],
  marks: [{ thing: "m", frame: 299, box: BOX }],
  people: [
    { id: "p1", number: 0, name: null, mergedInto: null },
    { id: "p2", number: 1, name: null, mergedInto: "p1" },
  ],
  trackEdits: new Map([["t", { removed: [{ start: 0, end: 300 }], joinedTo: "u" }]]),
};

const person = (id: string, mergedInto: string) => ({ id, number: 0, name: null, mergedInto });
const broken = (change: Partial<FilmState>, end = 300) => brokenInvariant({ ...SOUND, ...change }, end);
const withKey = (change: Partial<typeof KEY>) => broken({ versions: [{ ...TALL, handKeys: [{ ...KEY, ...change }] }] });

describe("a film's state", () => {
  test("is sound as it usually is, also while only its beginning was analysed", () => {
    expect(broken({})).toBeNull();
    expect(broken({ shots: [ONE] }, 100)).toBeNull();
    expect(broken({ shots: [], versions: [{ ...TALL, shots: new Map() }] }, 0)).toBeNull();
  });

  test("has shots that cover the film, each once", () => {
    expect(broken({ shots: [ONE, { ...TWO, start: 101 }] })).toContain("gap or overlap at frame 100");
    expect(broken({ shots: [ONE, { ...TWO, start: 99 }] })).toContain("gap or overlap");
    expect(broken({ shots: [TWO, ONE] })).toContain("gap or overlap at frame 0");
    expect(broken({ shots: [ONE, { ...TWO, end: 301 }] })).toContain("cannot reach from frame 100 to 301");
    expect(broken({ shots: [ONE, { ...TWO, end: 100 }] })).toContain("cannot reach");
    expect(broken({ shots: [ONE] })).toContain("end at frame 100, not at 300");
    expect(broken({ shots: [] })).toContain("end at frame 0");
    expect(broken({ shots: [ONE, { ...TWO, id: "one" }] })).toContain("one id");
    expect(broken({ shots: [ONE, { ...TWO, mixed: { start: 90, end: 310 } }] })).toContain("outside the film");
    expect(broken({ shots: [ONE, { ...TWO, protect: { ...BOX, x: 2000 } }] })).toContain("outside the picture");
  });

  test("has at least one version, and no end of them", () => {
    expect(broken({ versions: [] })).toContain("at least one");
    const many = Array.from({ length: MAX_VERSIONS + 1 }, (_, i) => ({ ...TALL, id: `v${i}` }));
    expect(broken({ versions: many })).toContain("at most 50");
    expect(broken({ versions: [{ ...TALL, shots: new Map([["three", {}]]) }] })).toContain("not the film's");
  });

  test("has windows inside the picture, at frames of the film", () => {
    expect(withKey({ frame: 300 })).toContain("no frame 300");
    expect(withKey({ x: 300 })).toContain("leave the picture");
    expect(withKey({ y: 600 })).toContain("leave the picture");
    expect(withKey({ height: 1090 })).toContain("leave the picture");
    expect(withKey({ x: Number.NaN })).toContain("leave the picture");
    expect(withKey({ x: 303.75, height: 1080 })).toBeNull();
  });

  test("has marks in the picture, and people and tracks that there are", () => {
    expect(broken({ marks: [{ thing: "m", frame: 300, box: BOX }] })).toContain("no frame 300");
    expect(broken({ marks: [{ thing: "m", frame: 5, box: { ...BOX, y: -60 } }] })).toContain("outside the picture");
    expect(broken({ people: [person("p1", "p9")] })).toContain("somebody in the film");
    const circle = [person("p1", "p2"), person("p2", "p1")];
    expect(broken({ people: circle })).toContain("themselves");
    expect(broken({ people: [person("p1", "p1")] })).toContain("themselves");
    expect(broken({ trackEdits: new Map([["t", { removed: [], joinedTo: "t" }]]) })).toContain("itself");
    const far = { removed: [{ start: 290, end: 301 }], joinedTo: null };
    expect(broken({ trackEdits: new Map([["t", far]]) })).toContain("290 to 301");
  });
});
