import { describe, expect, test } from "@jest/globals";
import { covering } from "../composition/layout";
import type { Track } from "../subjects/tracking/track";
import { tellingFrame } from "../subjects/choosing/telling-frame";
import { shownIn } from "../composition/shown";
import { cutLooks, framingLooks, longestGap } from "./second-looks";

const face = (x: (i: number) => number, width = () => 60): Track => ({
  id: "face",
  kind: "face",
  start: 100,
  boxes: Array.from({ length: 100 }, (_, i) => ({ x: x(i), y: 200, width: width(), height: 80 })),
  confidence: 0.9,
});
const windows = Array.from({ length: 100 }, () => ({ x: 500, y: 360, height: 720 }));
const shown = (of: typeof windows, size = TALL) =>
  shownIn([{ range: shot, windows: of, laidOut: covering(size) }], size, 25);
const HD = { width: 1280, height: 720 };
const TALL = { width: 1080, height: 1920 };
const RANGE = { start: 100, end: 200 };
const shot = {
  ...RANGE,
  kept: [RANGE],
  begins: "cut" as const,
  protect: null,
  texts: [],
  settings: { enlargement: 1.5 },
};
const kinds = (...args: Parameters<typeof framingLooks>) =>
  framingLooks(...args).map(({ kind, frame }) => [kind, frame]);

describe("second looks", () => {
  test("none where all is well", () => {
    expect(
      kinds(
        shot,
        face(() => 470),
        shown(windows),
        HD,
      ),
    ).toEqual([]);
    expect(kinds(shot, null, shown(windows), HD)).toEqual([]);
  });

  test("a subject that the window cuts, from where it does", () => {
    const leaving = face((i) => (i < 80 ? 470 : 680));
    const [look] = framingLooks(shot, leaving, shown(windows), HD);
    expect(look).toMatchObject({ kind: "subject-cut", frame: 180 });
    expect(look!.text).toBe("Subject cut off in 20 of 100 frames");
  });

  test("a cut that is not certain, unless the editor made it a turn", () => {
    expect(cutLooks(shot, 0.53)).toMatchObject([{ kind: "unsure-cut", frame: 100 }]);
    expect(cutLooks({ ...shot, begins: "turn" }, 0.53)).toEqual([]);
    expect(cutLooks(shot, 0.9)).toEqual([]);
    expect(cutLooks(shot, undefined)).toEqual([]);
  });

  test("text that the window cuts, in how many of its frames, and not text that it holds", () => {
    const text = (width: number): Track => ({
      id: "text",
      kind: "text",
      start: 120,
      boxes: Array.from({ length: 40 }, () => ({ x: 500 - width / 2, y: 600, width, height: 50 })),
      confidence: 1,
    });
    const looks = (width: number) => framingLooks({ ...shot, texts: [text(width)] }, null, shown(windows), HD);
    expect(looks(600)).toMatchObject([{ kind: "text-cut", frame: 120, text: "Text cut off in 40 of 40 frames" }]);
    expect(looks(300)).toEqual([]);
  });

  test("a subject that is not certain, with how sure it is", () => {
    const [look] = framingLooks(shot, null, shown(windows), HD, 0.31);
    expect(look).toMatchObject({ kind: "unsure-subject", frame: 100 });
    expect(look!.text).toBe("Subject uncertain (31%)");
    expect(kinds(shot, null, shown(windows), HD, 0.6)).toEqual([]);
  });

  test("a zoom that enlarges the picture beyond what it bears, and not that the version is large", () => {
    const zoomed = windows.map((window, i) => (i === 70 ? { ...window, height: 480 } : window));
    const [look] = framingLooks(shot, null, shown(zoomed), HD);
    expect(look).toMatchObject({ kind: "enlarged", frame: 170 });
    expect(look!.text).toContain("4.0 times");
    expect(kinds(shot, null, shown(zoomed, { width: 360, height: 640 }), HD)).toEqual([]);
    expect(kinds({ ...shot, settings: { enlargement: 4.1 } }, null, shown(zoomed), HD)).toEqual([]);
  });

  test("a part that is protected and does not fit", () => {
    const wide = { ...shot, protect: { x: 100, y: 100, width: 700, height: 60 } };
    const [look] = framingLooks(wide, null, shown(windows), HD);
    expect(look).toMatchObject({ kind: "protected-cut", frame: 100 });
    expect(look!.text).toBe("Protected area cut off in 100 of 100 frames");
    expect(kinds({ ...shot, protect: { x: 400, y: 100, width: 200, height: 60 } }, null, shown(windows), HD)).toEqual(
      [],
    );
  });

  test("a subject that is lost for a while between being seen, where it is lost", () => {
    const lost = face(() => 470);
    lost.boxes = lost.boxes.map((box, i) => (i >= 40 && i < 60 ? null : box));
    expect(kinds(shot, lost, shown(windows), HD)).toEqual([["subject-lost", 140]]);
    // Who comes late or leaves is not lost.
    const late = face(() => 470);
    late.boxes = late.boxes.map((box, i) => (i < 40 || i > 80 ? null : box));
    expect(kinds(shot, late, shown(windows), HD)).toEqual([]);
    expect(longestGap(lost)).toEqual({ start: 140, end: 160 });
    expect(longestGap(late)).toBeNull();
  });

  test("nothing in what is left out", () => {
    const leaving = face((i) => (i < 80 ? 470 : 680));
    const kept = (...ranges: [number, number][]) => ranges.map(([start, end]) => ({ start, end }));
    expect(kinds({ ...shot, kept: kept([100, 180]) }, leaving, shown(windows), HD)).toEqual([]);
    expect(kinds({ ...shot, kept: [] }, leaving, shown(windows), HD, 0.1)).toEqual([]);
    const [look] = framingLooks({ ...shot, kept: kept([120, 140], [170, 190]) }, leaving, shown(windows), HD);
    expect(look).toMatchObject({ kind: "subject-cut", frame: 180 });
    expect(look!.text).toBe("Subject cut off in 10 of 40 frames");
  });

  test("a shot of a few frames", () => {
    expect(cutLooks({ ...shot, end: 104 }, 0.9)).toMatchObject([{ kind: "short-shot", frame: 100 }]);
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
