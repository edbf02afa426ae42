import { describe, expect, test } from "@jest/globals";
import { TALL, TWO_SHOTS } from "../../../tests/support/film-state";
import { newBar, newText } from "../composition/layers/layer";
import { Refusal } from "../basics/refusal";
import { hardTransition } from "../shots/transition";
import type { AttentionSettings } from "../subjects/attention/attention-settings";
import { markTrackId } from "../subjects/marks/marked-things";
import { applyEdit } from "./apply";
import { type Command } from "./command";
import { applyDifference, Difference, differenceBetween } from "./difference";
import { type FilmState, newVersion } from "../version/film-state";
import { settledShot, shotSettings } from "../version/shot-settings";
import { keptRanges } from "../version/trim";

const KEY = { pane: 0, frame: 10, x: 700, y: 540, height: 1080, easing: null };
const BOX = { x: 10, y: 20, width: 30, height: 40 };
const cut = (frame: number) => hardTransition(frame, "cut");

/** The states that commands lead to, one after the other, each checked to be undone by its inverse as it is stored. */
function run(commands: readonly Command[], from: FilmState = TWO_SHOTS): FilmState[] {
  const states = [from];
  for (const command of commands) {
    const before = states.at(-1)!;
    const { state, inverse } = applyEdit(before, command);
    const stored = Difference.parse(JSON.parse(JSON.stringify(inverse.difference)));
    expect(applyEdit(state, { type: "restore", difference: stored }).state).toEqual(before);
    const told = Difference.parse(JSON.parse(JSON.stringify(differenceBetween(before, state))));
    expect(applyDifference(before, told)).toEqual(state);
    states.push(state);
  }
  return states;
}
const after = (...commands: Command[]): FilmState => run(commands).at(-1)!;
const refused = (command: Command, from?: FilmState) => {
  expect(() => run([command], from)).toThrow(Refusal);
  return expect(() => run([command], from));
};

describe("keys", () => {
  test("are set, moved onto another, and released", () => {
    const states = run([
      { type: "set-key", versionId: "tall", key: KEY },
      { type: "set-key", versionId: "tall", key: { ...KEY, frame: 20, x: 900 } },
      { type: "move-key", versionId: "tall", fromFrame: 10, key: { ...KEY, frame: 20, x: 750 } },
      { type: "remove-key", versionId: "tall", pane: 0, frame: 20 },
    ]).map(({ versions }) => versions[0]!.handKeys.map(({ frame, x }) => [frame, x]));
    const [first, second] = [
      [10, 700],
      [20, 900],
    ];
    expect(states).toEqual([[], [first], [first, second], [[20, 750]], []]);
  });

  test("of one pane leave those of another alone, also when that is undone", () => {
    const other = { ...KEY, pane: 1, x: 900 };
    const states = run([
      { type: "set-key", versionId: "tall", key: KEY },
      { type: "set-key", versionId: "tall", key: other },
      { type: "move-key", versionId: "tall", fromFrame: 10, key: { ...other, frame: 12 } },
      { type: "remove-key", versionId: "tall", pane: 1, frame: 12 },
    ]).map(({ versions }) => versions[0]!.handKeys);
    expect(states).toEqual([[], [KEY], [KEY, other], [KEY, { ...other, frame: 12 }], [KEY]]);
  });

  test("outside the film or the picture, or of no version, are refused", () => {
    refused({ type: "set-key", versionId: "gone", key: KEY }).toThrow("version no longer exists");
    refused({ type: "set-key", versionId: "tall", key: { ...KEY, frame: 300 } }).toThrow("no frame 300");
    refused({ type: "set-key", versionId: "tall", key: { ...KEY, x: 90 } }).toThrow("leave the picture");
  });
});

describe("how attention passes on", () => {
  const attention: AttentionSettings = { shortestStay: 3, switchBy: "cut", mustHave: ["p2"] };

  test("is the film's where neither a version nor a shot says otherwise", () => {
    const state = run([
      { type: "set-attention", attention },
      { type: "set-framing", versionId: "tall", shotIds: ["two"], change: { shortestStay: 5 } },
      { type: "change-version", versionId: "tall", change: { usual: { switchBy: "pan" } } },
    ]).at(-1)!;
    const [one, two] = shotSettings(state, state.versions[0]!).map((set) => settledShot(set).settings);
    expect(one).toMatchObject({ shortestStay: 3, switchBy: "pan", mustHave: ["p2"] });
    expect(two).toMatchObject({ shortestStay: 5, switchBy: "pan", mustHave: ["p2"] });
  });

  test("asks for whom somebody is by now, and for what is marked", () => {
    const merged = { type: "change-person", person: { id: "p2", name: null, mergedInto: "p1" } } as const;
    expect(run([{ type: "set-attention", attention }, merged]).at(-1)!.attention.mustHave).toEqual(["p1"]);
    const box = { x: 10, y: 10, width: 50, height: 50 };
    const marked = { ...attention, mustHave: [markTrackId("kite")] };
    const states = run([
      { type: "put-mark", thing: "kite", frame: 5, box },
      { type: "set-attention", attention: marked },
    ]);
    expect(states.at(-1)!.attention).toEqual(marked);
    refused({ type: "set-attention", attention: marked }).toThrow("no longer");
  });

  test("cannot ask for somebody who is not in the film", () => {
    refused({ type: "set-attention", attention: { ...attention, mustHave: ["p9"] } }).toThrow("no longer");
  });
});

describe("shots", () => {
  test("are reshaped in any length of row, with how they are framed", () => {
    const states = run([
      { type: "set-framing", versionId: "tall", shotIds: ["one", "two"], change: { movement: "chase", calm: 70 } },
      { type: "split-shot", frame: 40, kind: "switch" },
      { type: "split-shot", frame: 160, kind: "cut" },
      { type: "change-shots", shotIds: ["two", "film.160"], change: { excluded: true, name: "Bench" } },
      { type: "set-framing", versionId: "tall", shotIds: ["film.40"], change: { zoom: { kind: "fixed", factor: 2 } } },
      { type: "move-cut", shotId: "two", frame: 96 },
      { type: "join-shots", shotIds: ["two", "film.160"] },
      { type: "set-sensitivity", sensitivity: 80 },
      { type: "set-transitions", transitions: [cut(12)] },
    ]);
    expect(states[8]!.shots.map(({ start, begins }) => [start, begins])).toEqual([
      [0, "cut"],
      [40, "switch"],
      [100, "cut"],
      [180, "jump"],
    ]);
    expect(states[8]!.sensitivity).toBe(80);
    // A part that was split off moves as the whole did.
    expect([...states[2]!.versions[0]!.shots.keys()].sort()).toEqual(["film.40", "one", "two"]);
    expect(states.at(-1)!.versions[0]!.shots.has("film.160")).toBe(false);
  });

  test("keep what of the picture is active, or have of it what is common to those joined", () => {
    const wide = { x: 0, y: 140, width: 1920, height: 800 };
    const tall = { x: 240, y: 0, width: 1440, height: 1080 };
    const states = run([
      { type: "change-shots", shotIds: ["one"], change: { active: wide } },
      { type: "split-shot", frame: 40, kind: "cut" },
      { type: "change-shots", shotIds: ["two"], change: { active: tall } },
      { type: "join-shots", shotIds: ["film.40", "two"] },
    ]);
    expect(states.at(-1)!.shots.map(({ active }) => active)).toEqual([
      wide,
      { x: 240, y: 140, width: 1440, height: 800 },
    ]);
    for (const active of [
      { ...wide, y: 300 },
      { ...wide, height: 8 },
    ]) {
      refused({ type: "change-shots", shotIds: ["one"], change: { active } }).toThrow("picture area");
    }
  });

  test("that cannot be reshaped like this, or of another film, are refused", () => {
    refused({ type: "set-transitions", transitions: [cut(300)] }).toThrow("beyond the film's 300 frames");
    refused({ type: "move-cut", shotId: "one", frame: 5 }).toThrow("begins where the film does");
    refused({ type: "join-shots", shotIds: ["one", "three"] }).toThrow("no longer");
    refused({ type: "change-shots", shotIds: ["three"], change: { excluded: true } }).toThrow("no longer");
  });

  test("are not cut anew while the film is still analysed, but split", () => {
    const early = { ...TWO_SHOTS, film: { ...TWO_SHOTS.film, analysed: false } };
    refused({ type: "set-sensitivity", sensitivity: 90 }, early).toThrow("still being analysed");
    refused({ type: "set-transitions", transitions: [] }, early).toThrow("still being analysed");
    expect(run([{ type: "split-shot", frame: 50, kind: "cut" }], early).at(-1)!.shots).toHaveLength(3);
  });
});

describe("a version", () => {
  const square = newVersion({ id: "square", name: "Square", width: 1080, height: 1080 });

  test("says for itself whom it follows and what it protects, and does as the film does again", () => {
    const own: Command = {
      type: "set-framing",
      versionId: "tall",
      shotIds: ["one"],
      change: { follow: { kind: "none" }, protect: null, calm: 20 },
    };
    const state = after(
      { type: "change-shots", shotIds: ["one"], change: { protect: BOX } },
      { type: "add-version", version: square },
      own,
    );
    expect(state.versions[0]!.shots.get("one")).toEqual({ follow: { kind: "none" }, protect: null, calm: 20 });
    expect(state.versions[1]!.shots.size).toBe(0);
    expect(state.shots[0]).toMatchObject({ follow: { kind: "auto" }, protect: BOX });
    const reset: Command = { ...own, change: {}, reset: ["follow", "protect"] };
    expect(run([reset], state).at(-1)!.versions[0]!.shots.get("one")).toEqual({ calm: 20 });
    const all: Command = { ...reset, reset: ["follow", "protect", "calm"] };
    expect(run([all], state).at(-1)!.versions[0]!.shots.has("one")).toBe(false);
  });

  test("that is removed comes back to its place, with all that was set in it", () => {
    const states = run([
      { type: "add-version", version: square },
      { type: "set-framing", versionId: "tall", shotIds: ["two"], change: { movement: "still" } },
      { type: "set-key", versionId: "tall", key: KEY },
      { type: "remove-version", versionId: "tall" },
    ]);
    expect(states.at(-1)!.versions.map(({ id }) => id)).toEqual(["square"]);
    expect(states.at(-2)!.versions[0]).toMatchObject({ id: "tall", handKeys: [KEY] });
  });

  test("is duplicated with all that is set in it, under a name of its own", () => {
    const states = run([
      { type: "set-framing", versionId: "tall", shotIds: ["two"], change: { movement: "still" } },
      { type: "set-key", versionId: "tall", key: KEY },
      { type: "trim-version", versionId: "tall", in: 20 },
      { type: "duplicate-version", versionId: "tall", id: "copy", name: "Tall, shorter" },
      { type: "remove-key", versionId: "copy", pane: 0, frame: KEY.frame },
    ]);
    const [tall, copy] = states[4]!.versions;
    expect(copy).toEqual({ ...tall, id: "copy", name: "Tall, shorter" });
    expect(states[5]!.versions.map(({ handKeys }) => handKeys.length)).toEqual([1, 0]);
    refused({ type: "duplicate-version", versionId: "tall", id: "tall", name: "Again" }).toThrow("already exists");
    refused({ type: "duplicate-version", versionId: "gone", id: "new", name: "Again" }).toThrow("no longer");
  });

  test("takes its hand keys along into another shape, at the same zoom and around the same place", () => {
    const near = { ...KEY, frame: 30, x: 700, height: 540 };
    const states = run([
      { type: "set-key", versionId: "tall", key: KEY },
      { type: "set-key", versionId: "tall", key: near },
      { type: "change-version", versionId: "tall", change: { width: 1920, height: 820 } },
      { type: "change-version", versionId: "tall", change: { name: "Wide", limitSeconds: 60, usual: { calm: 80 } } },
    ]);
    const wide = states.at(-1)!.versions[0]!;
    expect(wide).toMatchObject({ name: "Wide", width: 1920, height: 820, limitSeconds: 60, usual: { calm: 80 } });
    // As large as fits, and half of that: the picture is as wide as the window now.
    expect(wide.handKeys[0]).toMatchObject({ frame: KEY.frame, y: 540, height: 820 });
    expect(wide.handKeys[0]!.x).toBeCloseTo(960);
    expect(wide.handKeys[1]).toMatchObject({ frame: 30, x: 700, y: 540, height: 410 });
    // The same shape in more pixels shows the same.
    const large = after(
      { type: "set-key", versionId: "tall", key: near },
      { type: "change-version", versionId: "tall", change: { width: 2160, height: 3840 } },
    );
    expect(large.versions[0]!.handKeys).toEqual([near]);
  });

  test("begins and ends where it is trimmed; a point that would leave nothing takes the other away", () => {
    const trim = (point: { in?: number | null; out?: number | null }): Command => ({
      type: "trim-version",
      versionId: "tall",
      ...point,
    });
    const states = run([
      trim({ in: 40 }),
      trim({ out: 120 }),
      trim({ in: 200 }),
      trim({ out: 90 }),
      trim({ out: null }),
    ]);
    expect(states.slice(1).map(({ versions }) => [versions[0]!.trim.in, versions[0]!.trim.out])).toEqual([
      [40, null],
      [40, 120],
      [200, null],
      [null, 90],
      [null, null],
    ]);
    refused(trim({ out: 400 })).toThrow("cannot reach");
  });

  test("leaves ranges out, joins those that touch, and brings back what is asked for", () => {
    const change = (type: "leave-out" | "bring-back", start: number, end: number): Command => ({
      type,
      versionId: "tall",
      ranges: [{ start, end }],
    });
    const state = after(
      change("leave-out", 10, 30),
      change("leave-out", 60, 80),
      change("leave-out", 25, 50),
      change("bring-back", 40, 70),
    );
    expect(state.versions[0]!.trim.leftOut).toEqual([
      { start: 10, end: 40 },
      { start: 70, end: 80 },
    ]);
    expect(keptRanges(state.versions[0]!.trim, 300, { shots: [], clips: [] })).toEqual([
      { start: 0, end: 10 },
      { start: 40, end: 70 },
      { start: 80, end: 300 },
    ]);
    refused(change("leave-out", 290, 301)).toThrow("cannot leave out");
  });

  test("is neither there twice nor the last to go", () => {
    refused({ type: "add-version", version: { ...square, id: "tall" } }).toThrow("already exists");
    refused({ type: "remove-version", versionId: "tall" }).toThrow("at least one version");
  });
});

describe("marks, tracks and people", () => {
  test("are put, corrected and taken away", () => {
    const put = (frame: number, box: typeof BOX | null): Command => ({ type: "put-mark", thing: "m", frame, box });
    const states = run([put(50, BOX), put(20, BOX), put(50, { ...BOX, x: 15 }), put(50, null)]);
    expect(states.map(({ marks }) => marks.map(({ frame, box }) => [frame, box.x]))).toEqual([
      [],
      [[50, 10]],
      [
        [20, 10],
        [50, 10],
      ],
      [
        [20, 10],
        [50, 15],
      ],
      [[20, 10]],
    ]);
  });

  test("are changed by their ids, and there must be such people", () => {
    const edit = { removed: [{ start: 0, end: 10 }], joinedTo: null };
    const person = { id: "p2", name: "Ilse", mergedInto: "p1" };
    const state = after({ type: "edit-track", trackId: "t", edit }, { type: "change-person", person });
    expect([...state.trackEdits]).toEqual([["t", edit]]);
    expect(state.people[1]).toEqual({ ...person, number: 1 });
    refused({ type: "change-person", person: { ...person, id: "p9" } }).toThrow("no longer");
  });
});

describe("a batch", () => {
  test("is one step, all of it or nothing", () => {
    const follow = { kind: "track", trackId: "mark-m" } as const;
    const batch: Command = {
      type: "batch",
      commands: [
        { type: "put-mark", thing: "m", frame: 5, box: BOX },
        { type: "change-shots", shotIds: ["one"], change: { follow } },
      ],
    };
    const state = after(batch);
    expect([state.marks.length, state.shots[0]!.follow]).toEqual([1, follow]);
    const broken = [...batch.commands, { type: "remove-version", versionId: "gone" } as const];
    refused({ type: "batch", commands: broken }).toThrow("no longer");
  });
});

test("what a command does not change is the very same value", () => {
  const { state } = applyEdit(TWO_SHOTS, { type: "set-key", versionId: "tall", key: KEY });
  expect(state.shots).toBe(TWO_SHOTS.shots);
  expect(state.trackEdits).toBe(TWO_SHOTS.trackEdits);
  expect(TALL.handKeys).toEqual([]);
});

describe("layers", () => {
  const title = newText("t", "Ferrow");
  const bar = newBar("b");
  const put = (layer: typeof title | typeof bar) => ({ type: "put-layer" as const, versionId: "tall", layer });

  test("are added in front, changed in their place, ordered and deleted", () => {
    const states = run([
      put(title),
      put(bar),
      put({ ...title, text: "Ferrow Kite Day" }),
      { type: "move-layer", versionId: "tall", layerId: "b", to: 0 },
      { type: "remove-layer", versionId: "tall", layerId: "t" },
    ]).map(({ versions }) => versions[0]!.layers.map((layer) => (layer.kind === "text" ? layer.text : layer.id)));
    expect(states).toEqual([
      [],
      ["Ferrow"],
      ["Ferrow", "b"],
      ["Ferrow Kite Day", "b"],
      ["b", "Ferrow Kite Day"],
      ["b"],
    ]);
  });

  test("that are gone, or outside the film, are refused", () => {
    refused({ type: "remove-layer", versionId: "tall", layerId: "t" }).toThrow("no longer");
    refused(put({ ...title, range: { start: 290, end: 900 } })).toThrow("where the film is not");
  });
});
