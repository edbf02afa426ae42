import { describe, expect, test } from "@jest/globals";
import { covering } from "../composition/layout";
import { shownIn } from "../composition/shown";
import { type CropWindow } from "../geometry/crop-window";
import { tellingFrame } from "../subjects/choosing/telling-frame";
import type { Track } from "../subjects/tracking/track";
import { USUAL_LIMITS } from "./check-settings";
import type { CheckedShot } from "./checked-shot";
import { framingFlags, gapsOf, longestGap } from "./framing-flags";

const TALL = { width: 1080, height: 1920 };
const RANGE = { start: 100, end: 200 };
/** 100 frames, 4 s; windows are 405 wide, and stand in the middle. */
const windows: CropWindow[] = Array.from({ length: 100 }, () => ({ x: 500, y: 360, height: 720 }));
const shown = (of = windows, size = TALL) =>
  shownIn([{ range: RANGE, windows: of, laidOut: covering(size) }], size, 25);
const shot: CheckedShot = {
  kept: [RANGE],
  protect: null,
  tracks: [],
  settings: { largestScale: 1.5, mustHave: [] },
  limits: USUAL_LIMITS,
  area: { x: 0, y: 0, width: 1280, height: 720 },
  rate: { num: 25, den: 1 },
};
const track = (kind: Track["kind"], x: (i: number) => number | null, width = 60): Track => ({
  id: kind,
  kind,
  start: 100,
  confidence: 0.9,
  boxes: Array.from({ length: 100 }, (_, i) => {
    const left = x(i);
    return left === null ? null : { x: left, y: 200, width, height: 80 };
  }),
});
const face = (x: (i: number) => number | null) => track("face", x);
const flags = (subject: Track | null, change: Partial<CheckedShot> = {}, of = windows, certainty = 1) =>
  framingFlags({ ...shot, tracks: subject ? [subject] : [], ...change }, subject, shown(of), certainty);

describe("flags at how a shot is framed", () => {
  test("none where all is well", () => {
    expect(flags(face(() => 470))).toEqual([]);
    expect(flags(null)).toEqual([]);
  });

  test("every range in which a face is cut off for long is told, at its worst, and a moment of it is not", () => {
    // Cut off in 12 frames, in 3, and in 20, the last of them more and more.
    const cut = face((i) => (i >= 10 && i < 22 ? 660 : i >= 40 && i < 43 ? 660 : i >= 80 ? 660 + (i - 80) : 470));
    expect(flags(cut)).toMatchObject([
      { kind: "subject-cut", range: { start: 110, end: 122 }, text: "Face cut off for 0.5 s, up to 29% of it" },
      { kind: "subject-cut", range: { start: 180, end: 200 }, frame: 199 },
    ]);
    const [short, long] = flags(cut);
    expect(long!.severity).toBeGreaterThan(short!.severity);
  });

  test("three seconds of trouble are told however long the shot is, as far as its limit goes", () => {
    const range = { start: 100, end: 100 + 10_000 };
    const subject: Track = {
      ...face(() => 470),
      boxes: Array.from({ length: 10_000 }, (_, i) => ({
        x: i >= 5000 && i < 5075 ? 680 : 470,
        y: 200,
        width: 60,
        height: 80,
      })),
    };
    const still = Array.from({ length: 10_000 }, () => windows[0]!);
    const at = shownIn([{ range, windows: still, laidOut: covering(TALL) }], TALL, 25);
    const told = (cut: number) =>
      framingFlags({ ...shot, kept: [range], limits: { ...USUAL_LIMITS, cut } }, subject, at);
    expect(told(0.4)).toMatchObject([{ kind: "subject-cut", range: { start: 5100, end: 5175 } }]);
    expect(told(4)).toEqual([]);
  });

  test("a flicker between two ranges does not make two of them", () => {
    expect(flags(face((i) => (i >= 20 && i < 60 && i !== 40 ? 680 : 470)))).toMatchObject([
      { kind: "subject-cut", range: { start: 120, end: 160 } },
    ]);
  });

  test("text that the window cuts, and not text that it holds", () => {
    const text = (width: number) => ({ ...track("text", (i) => (i >= 20 && i < 60 ? 500 - width / 2 : null), width) });
    expect(flags(null, { tracks: [text(600)] })).toMatchObject([
      { kind: "text-cut", range: { start: 120, end: 160 }, text: "Text cut off for 1.6 s, up to 33% of it" },
    ]);
    expect(flags(null, { tracks: [text(300)] })).toEqual([]);
  });

  test("a subject that is not certain, with how sure it is", () => {
    expect(flags(null, {}, windows, 0.31)).toMatchObject([
      { kind: "unsure-subject", frame: 100, range: RANGE, text: "Subject uncertain (31%)" },
    ]);
    expect(flags(null, {}, windows, 0.6)).toEqual([]);
  });

  test("a zoom that enlarges the picture beyond what it bears, and not that the version is large", () => {
    const zoomed = windows.map((window, i) => (i >= 70 ? { ...window, height: 480 } : window));
    expect(flags(null, {}, zoomed)).toMatchObject([
      { kind: "enlarged", frame: 170, text: "Scale 400%, which may look soft" },
    ]);
    expect(framingFlags(shot, null, shown(zoomed, { width: 360, height: 640 }))).toEqual([]);
    expect(flags(null, { settings: { largestScale: 4.1, mustHave: [] } }, zoomed)).toEqual([]);
  });

  test("a part that is protected and does not fit", () => {
    const protect = { x: 100, y: 100, width: 700, height: 60 };
    expect(flags(null, { protect })).toMatchObject([{ kind: "protected-cut", range: RANGE }]);
    expect(flags(null, { protect: { ...protect, x: 400, width: 200 } })).toEqual([]);
  });

  test("a subject that is lost for a while between being seen, where it is lost", () => {
    const lost = face((i) => (i >= 40 && i < 70 ? null : 470));
    expect(flags(lost)).toMatchObject([
      { kind: "subject-lost", range: { start: 140, end: 170 }, text: "Subject not seen for 1.2 s" },
    ]);
    // Who comes late or leaves is not lost.
    const late = face((i) => (i < 40 || i > 80 ? null : 470));
    expect(flags(late)).toEqual([]);
    expect([longestGap(lost), longestGap(late)]).toEqual([{ start: 140, end: 170 }, null]);
    expect(gapsOf(face((i) => (i % 50 < 25 ? 470 : null)))).toEqual([{ start: 125, end: 150 }]);
  });

  test("nobody in the frame while somebody is beside it, unless what is followed is in it", () => {
    const beside = face((i) => (i < 40 ? 1000 : 470));
    expect(flags(null, { tracks: [beside] })).toMatchObject([
      { kind: "empty-frame", range: { start: 100, end: 140 }, text: expect.stringContaining("for 1.6 s") },
    ]);
    const thing = track("object", () => 470);
    expect(framingFlags({ ...shot, tracks: [beside, thing] }, thing, shown())).toEqual([]);
  });

  test("somebody who must be in the frame and is not shown, by their letter", () => {
    const settings = { largestScale: 8, mustHave: ["p3"] };
    const theirs = { ...face((i) => (i < 40 ? 1000 : 470)), who: "p3" };
    expect(flags(null, { tracks: [theirs], settings }).filter(({ kind }) => kind === "absent")).toMatchObject([
      { range: { start: 100, end: 140 }, who: "p3", text: "C must be in the picture and is missing for 1.6 s" },
    ]);
    expect(flags(null, { tracks: [], settings })).toMatchObject([{ kind: "absent", range: RANGE }]);
    expect(flags(null, { tracks: [{ ...theirs, who: "p1" }] }).map(({ kind }) => kind)).not.toContain("absent");
  });

  test("somebody who looks out of the edge that is nearer, and not one who looks across the frame", () => {
    const turned = (side: number): Track => ({
      ...face(() => 310),
      facing: Array.from({ length: 20 }, (_, i) => ({ frame: 100 + 5 * i, side })),
    });
    expect(flags(turned(-0.8))).toMatchObject([{ kind: "looks-out", range: RANGE }]);
    for (const side of [0.8, -0.2]) expect(flags(turned(side))).toEqual([]);
    // Of a body the face tells that belongs to it, and no other one.
    const body = { ...track("person", () => 300, 80), id: "body" };
    const of = (personId: string) =>
      framingFlags({ ...shot, tracks: [body, { ...turned(-0.8), personId }] }, body, shown()).map(({ kind }) => kind);
    expect([of("body"), of("another")]).toEqual([["looks-out"], []]);
    expect(flags({ ...turned(-0.8), facing: [] })).toEqual([]);
    expect(flags({ ...turned(-0.8), boxes: [] })).toEqual([]);
  });

  test("text that is cut off by its words, and each for itself; an inset; a box of the editor's own by its own rule", () => {
    const off = (kind: Track["kind"]) => track(kind, () => 660);
    const texts = (...tracks: Track[]) => flags(null, { tracks }).map(({ kind, text }) => [kind, text.split(" ")[0]]);
    const [[textCut, said]] = texts(off("text")) as [[string, string]];
    const [[insetCut, saidOfInset]] = texts(off("inset")) as [[string, string]];
    expect([textCut, insetCut, said === saidOfInset]).toEqual(["text-cut", "text-cut", false]);
    expect(texts(off("text"), off("inset"))).toEqual([
      ["text-cut", said],
      ["text-cut", saidOfInset],
    ]);
    const words = { lines: ["Nela", "Orbin"], ink: [255, 255, 255], ground: [0, 0, 0] } satisfies Track["words"];
    const sign = { ...off("text"), id: "sign", mayBeSign: true as const, words };
    const [flag] = flags(null, { tracks: [sign] });
    expect(flag).toMatchObject({ otherId: "sign" });
    expect(flag!.text).toMatch(/^“Nela Orbin” \(may be a sign\) cut off for/);
    const protect = { x: 600, y: 300, width: 104, height: 50 };
    expect(flags(null, { protect }).map(({ kind }) => kind)).toEqual(["protected-cut"]);
    expect(flags(null, { protect: { ...protect, width: 103 } })).toEqual([]);
  });

  test("a subject that was hard to choose, the less so the surer that was, and not where all is shown", () => {
    const unsure = (certainty: number) =>
      flags(
        face(() => 470),
        {},
        windows,
        certainty,
      );
    expect(unsure(0.5)).toEqual([]);
    const [hardly, rather] = [unsure(0.1)[0]!, unsure(0.45)[0]!];
    expect([hardly.kind, rather.kind, hardly.range]).toEqual(["unsure-subject", "unsure-subject", RANGE]);
    expect(hardly.severity).toBeGreaterThan(rather.severity);
    const wide = { width: 1280, height: 720 };
    const all = shown(
      windows.map(() => ({ x: 640, y: 360, height: 720 })),
      wide,
    );
    expect(framingFlags(shot, null, all, 0.1)).toEqual([]);
  });

  test("a zoom that enlarges the picture more than may be, with by how much; the largest window is no zoom", () => {
    const zoomed = (height: number) =>
      flags(
        null,
        {},
        windows.map((window) => ({ ...window, height })),
      );
    // 1920 lines of 640 of the film: three times its size, where one and a half may be.
    expect(zoomed(640)).toMatchObject([{ kind: "enlarged", range: RANGE, text: expect.stringContaining("300%") }]);
    expect([zoomed(720), flags(null, { settings: { largestScale: 3, mustHave: [] } })]).toEqual([[], []]);
  });

  test("a window that can go no further, with its subject far beside its middle", () => {
    const left = windows.map((window) => ({ ...window, x: 202.5 }));
    expect(
      flags(
        face(() => 10),
        {},
        left,
      ),
    ).toMatchObject([{ kind: "at-edge", range: RANGE, text: expect.stringContaining("40% off centre") }]);
    expect(
      flags(
        face(() => 170),
        {},
        left,
      ),
    ).toEqual([]);
  });

  test("nothing in what is left out, and no range across it", () => {
    const leaving = face((i) => (i < 80 ? 470 : 680));
    const kept = (...ranges: [number, number][]) => ranges.map(([start, end]) => ({ start, end }));
    expect(flags(leaving, { kept: kept([100, 180]) })).toEqual([]);
    expect(flags(leaving, { kept: [] }, windows, 0.1)).toEqual([]);
    const parts = kept([120, 140], [170, 192], [194, 200]);
    expect(flags(leaving, { kept: parts })).toMatchObject([{ kind: "subject-cut", range: { start: 180, end: 192 } }]);
  });
});

test("the telling frame shows the subject large and inside, and is the middle without one", () => {
  const range = [RANGE];
  const growing = face(() => 470);
  growing.boxes = growing.boxes.map((box, i) => (i < 70 ? null : { ...box!, width: i }));
  expect(tellingFrame(range, null, shown(windows))).toBe(150);
  const parts = [
    { start: 100, end: 120 },
    { start: 170, end: 180 },
  ];
  expect(tellingFrame(parts, null, shown(windows))).toBe(119);
  expect(tellingFrame(range, growing, shown(windows))).toBeGreaterThanOrEqual(170);
  expect(
    tellingFrame(
      range,
      face(() => 470),
      shown(windows),
    ),
  ).toBe(150);
  // Beside the window while it is in the middle of the shot.
  expect(
    tellingFrame(
      range,
      face((i) => (i < 80 ? 1400 : 470)),
      shown(windows),
    ),
  ).toBe(180);
});
