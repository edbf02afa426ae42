import { describe, expect, test } from "@jest/globals";
import { INFO } from "../../../tests/support/film-info";
import { TALL, TWO_SHOTS } from "../../../tests/support/film-state";
import type { FilmState } from "../version/film-state";
import { brokenInvariant } from "../edits/invariants";
import type { ShotInVersion } from "../version/settle";
import type { FilmInfo } from "../film/film-info";
import { freshShot } from "../shots/shot";
import { hardTransition } from "../shots/transition";
import { arrange, arrangedState, type WantedClip } from "./arrange";
import type { ClipWithFile } from "./clip";
import type { TakenFilm } from "./take-work";

const WIDE = { x: 0, y: 0, width: 1920, height: 1080 };
const RATE = { num: 30, den: 1 };
const FORMAT = { videoCodec: "ffv1", soundCodec: "flac", container: "matroska", timescale: 1000, seekMargin: 0.5 };
const clip = (id: string, start: number, end: number, change: Partial<ClipWithFile> = {}): ClipWithFile => ({
  id,
  name: `${id}.mp4`,
  file: `${id}.mp4`,
  info: { ...INFO, frames: end - start },
  start,
  end,
  in: null,
  out: null,
  area: WIDE,
  ...change,
});
/** A film of two clips of 100 and 200 frames, with work on both. */
const BEFORE = { rate: RATE, clips: [clip("a", 0, 100), clip("b", 100, 300, { in: 10, out: 190 })] };
const box = { x: 900, y: 500, width: 100, height: 100 };
const key = (frame: number) => ({ pane: 0, frame, x: 960, y: 540, height: 1080, easing: null });
const STATE: FilmState = {
  ...TWO_SHOTS,
  shots: [
    { ...TWO_SHOTS.shots[0]!, name: "Quay" },
    { ...TWO_SHOTS.shots[1]!, name: "Boat" },
  ],
  clips: BEFORE.clips.map((one) => ({ ...one, picture: one.info.picture })),
  versions: [{ ...TALL, handKeys: [key(40), key(150)] }],
  marks: [{ thing: "m", frame: 150, box }],
  captions: [{ id: "t", start: 120, end: 160, text: "Let go", speaker: null }],
};
const ask = (wanted: readonly WantedClip[], rate = RATE) => arrange(BEFORE, wanted, rate, () => FORMAT);
const [A, B] = BEFORE.clips as [ClipWithFile, ClipWithFile];
const tracking = { tracksOf: () => [], newId: () => "new" };
function state(wanted: readonly WantedClip[], taken: TakenFilm[] = []): FilmState {
  const to = ask(wanted);
  const arranged = arrangedState(STATE, to, tracking, taken);
  expect(brokenInvariant(arranged, to.info.frames)).toBeNull();
  return arranged;
}
const rows = ({ shots }: FilmState) => shots.map(({ name, start, end, begins }) => [name, start, end, begins]);

describe("how a film of clips is made in another way", () => {
  test("in another order, each brings along what was known of it", () => {
    const { clips, known, parts, ratio, info } = ask([B, A]);
    expect(clips.map(({ id, start, end, in: first, out }) => [id, start, end, first, out])).toEqual([
      ["b", 0, 200, 10, 190],
      ["a", 200, 300, null, null],
    ]);
    expect(parts).toEqual([
      { from: { start: 0, end: 100 }, to: { start: 200, end: 300 }, shift: 200, areas: { from: WIDE, to: WIDE } },
      { from: { start: 100, end: 300 }, to: { start: 0, end: 200 }, shift: -100, areas: { from: WIDE, to: WIDE } },
    ]);
    expect([known, ratio, info.frames]).toEqual([parts, 1, 300]);
  });

  test("with another file in the place of a clip's, or at another rate, nothing that was found holds", () => {
    const other = ask([A, { ...B, file: "b2.mp4" }]);
    expect(other.known).toEqual([other.parts[0]]);
    const slower = ask([A, B], { num: 15, den: 1 });
    expect([slower.ratio, slower.known, slower.clips.map(({ end }) => end)]).toEqual([0.5, [], [50, 150]]);
    expect(slower.parts.map(({ shift }) => shift)).toEqual([0, 0]);
  });

  test("in and out points that a shorter clip does not reach any more are gone", () => {
    const shorter = (frames: number, first: number | null, out: number | null) => {
      const [made] = ask([{ ...B, info: { ...INFO, frames }, in: first, out }]).clips;
      return [made!.in, made!.out];
    };
    expect(shorter(150, 10, 190)).toEqual([10, null]);
    expect(shorter(190, 189, 190)).toEqual([189, null]);
    expect(shorter(191, 190, 191)).toEqual([190, null]);
    expect(shorter(191, 189, 190)).toEqual([189, 190]);
    expect(shorter(9, 10, 190)).toEqual([null, null]);
    expect(shorter(10, 10, null)).toEqual([null, null]);
    expect(shorter(100, 0, 50)).toEqual([null, 50]);
    expect(shorter(100, 60, 60)).toEqual([60, null]);
  });

  test("is as long and as deep as its clips, has sound where one of them has, and the bytes of all", () => {
    const sound = { codec: "aac", index: 0, start: 0 };
    const info = (change: Partial<FilmInfo>) => ask([A, { ...B, info: { ...B.info, ...change } }]).info;
    expect(info({})).toMatchObject({ frames: 300, audio: null, sounds: [], bitDepth: 8, bytes: 2 });
    expect(info({ audio: sound })).toMatchObject({ audio: { codec: "flac", index: 0, start: 0 } });
    expect(info({ audio: sound }).sounds).toEqual([
      { codec: "flac", index: 0, start: 0, channels: 2, language: null, title: null },
    ]);
    expect(info({ bitDepth: 10, bytes: 7 })).toMatchObject({ bitDepth: 10, bytes: 8 });
    expect(info({}).grid).toMatchObject({ origin: 0, lastPicture: 299 / 30, even: true, timeBase: 1 / 1000 });
    expect(info({})).toMatchObject({ cutOff: 0, timeBreaks: false, interlaced: false, fields: false });
  });
});

describe("the work on a film whose clips are moved", () => {
  test("goes along with them", () => {
    const moved = state([B, A]);
    expect(rows(moved)).toEqual([
      ["Boat", 0, 200, "cut"],
      ["Quay", 200, 300, "cut"],
    ]);
    expect(moved.versions[0]!.handKeys.map(({ frame }) => frame)).toEqual([50, 240]);
    expect(moved.marks).toEqual([{ thing: "m", frame: 50, box }]);
    expect(moved.captions.map(({ start, end }) => [start, end])).toEqual([[20, 60]]);
    expect(moved.clips.map(({ id, picture }) => [id, picture])).toEqual([
      ["b", INFO.picture],
      ["a", INFO.picture],
    ]);
  });

  test("a shot ends where a clip does, and goes on in a shot of its own", () => {
    const whole = { ...STATE, shots: [{ ...freshShot("all", { start: 0, end: 300 }, null), name: "All" }] };
    const to = ask([A, B, clip("c", 0, 60)]);
    const arranged = arrangedState(whole, to, tracking);
    expect(brokenInvariant(arranged, 360)).toBeNull();
    const starts = arranged.shots.map(({ start, end, begins }) => [start, end, begins]);
    expect(starts.map(([start]) => start)).toEqual([0, 100, 300]);
    expect(starts.at(-1)).toEqual([300, 360, "cut"]);
    expect(new Set(arranged.shots.map(({ id }) => id)).size).toBe(3);
  });

  test("what lies around a smaller clip's picture is none of its shot, and bars of its own stay cut off", () => {
    const upright = { ...INFO, frames: 60, picture: { width: 608, height: 1080 } };
    const placed = state([A, B, { ...clip("c", 0, 60), info: upright }]);
    expect(placed.shots.map(({ active }) => active)).toEqual([null, null, { x: 656, y: 0, width: 608, height: 1080 }]);
    const barred = { x: 0, y: 100, width: 1920, height: 880 };
    const shots = [{ ...STATE.shots[0]!, active: barred }, STATE.shots[1]!];
    expect(arrangedState({ ...STATE, shots }, ask([B, A]), tracking).shots[1]!.active).toEqual(barred);
  });
});

describe("a film that becomes a clip of another", () => {
  const inner: FilmState = {
    ...TWO_SHOTS,
    film: { ...TWO_SHOTS.film, id: "inner", frames: 120 },
    shots: [
      { ...freshShot("x", { start: 0, end: 50 }, null), name: "Hull", follow: { kind: "person", who: "p1" } },
      { ...freshShot("y", { start: 50, end: 120 }, hardTransition(50, "cut")), name: "Sail", follow: { kind: "none" } },
    ],
    versions: [
      {
        ...TALL,
        id: "of-inner",
        shots: new Map<string, ShotInVersion>([
          ["x", { calm: 30, follow: { kind: "person", who: "p1" }, mustHave: ["p1"] }],
          ["y", { movement: "still" }],
        ]),
        handKeys: [key(20)],
      },
      { ...TALL, id: "square", width: 1080, height: 1080, handKeys: [key(70)] },
    ],
    marks: [{ thing: "a", frame: 60, box }],
  };
  const C = clip("c", 100, 220);
  const taken = { clip: C, state: inner, tracking };

  test("brings its shots, marks and hand keys into its place", () => {
    const joined = state([A, { ...C }, B], [taken]);
    expect(rows(joined)).toEqual([
      ["Quay", 0, 100, "cut"],
      ["Hull", 100, 150, "cut"],
      ["Sail", 150, 220, "cut"],
      ["Boat", 220, 420, "cut"],
    ]);
    expect(joined.marks.map(({ thing, frame }) => [thing, frame])).toEqual([
      ["a", 160],
      ["m", 270],
    ]);
    const [version, ...others] = joined.versions;
    expect(others).toEqual([]);
    // Of the version of the other shape nothing comes along.
    expect(version!.handKeys.map(({ frame }) => frame)).toEqual([40, 120, 270]);
  });

  test("but nobody whom it has recognised, who is nobody here", () => {
    const { shots, versions } = state([A, { ...C }, B], [taken]);
    expect(shots.map(({ follow }) => follow.kind)).toEqual(["auto", "auto", "none", "auto"]);
    const says = versions[0]!.shots;
    expect(says.get(shots[1]!.id)).toEqual({ calm: 30 });
    expect(says.get(shots[2]!.id)).toEqual({ movement: "still" });
    expect(says.size).toBe(2);
  });
});
