import { expect, test } from "@jest/globals";
import { USUAL_BACKDROP } from "../composition/backdrop";
import { PLAIN_EDGE } from "../composition/edge";
import { WHOLE } from "../composition/layout";
import type { Key } from "../path/keys";
import { freshShot } from "../shots/shot";
import { USUAL_ATTENTION } from "../subjects/attention/attention-settings";
import type { Track } from "../subjects/tracking/track";
import { lay } from "../version/lay";
import type { ShotSettings } from "../version/shot-settings";
import { readReport } from "./read-report";
import { AnalysisReport, Report } from "./report";
import { makeAnalysisReport, makeReport } from "./write-report";

const FILM = { file: "kite.mp4", picture: { width: 1920, height: 1080 }, rate: { num: 30000, den: 1001 }, frames: 2 };
const TALL = { width: 1080, height: 1920 };
const ACTIVE = { x: 0, y: 140, width: 1920, height: 800 };
const RANGE = { start: 0, end: 2 };
const tracks: Track[] = [
  {
    id: "s1-face-1",
    kind: "face",
    start: 0,
    boxes: [{ x: 1.26, y: 2, width: 30, height: 40 }, null],
    confidence: 0.9,
    who: "p2",
    personId: "s1-person-1",
    speaking: [RANGE],
  },
];
const set: ShotSettings = {
  shot: freshShot("1", RANGE, { frame: 0, kind: "dissolve", range: { start: 0, end: 1 } }, ACTIVE),
  inVersion: { layout: WHOLE, movement: "glide" },
  usual: {},
  attention: USUAL_ATTENTION,
  handKeys: [],
  kept: [RANGE],
};
const laid = lay(FILM, TALL, [set], [tracks]);
const path = {
  subjectId: "s1-face-1",
  certainty: 0.81239,
  spans: [],
  keys: [{ frame: 0, x: 700.12345, y: 540, height: 1080, easing: "hold", by: "solver" }] satisfies Key[],
  windows: [0, 1].map(() => ({ x: 700.12345, y: 540, height: 1080 })),
};
const report = makeReport(FILM, { ...laid, shots: [{ ...laid.shots[0]!, ...path }] });

test("a report holds to its schema, and is rounded to what can be seen", () => {
  expect(Report.parse(JSON.parse(JSON.stringify(report)))).toEqual(report);
  expect(report.shots[0]).toMatchObject({ transition: "dissolve", range: [0, 1] });
  expect(report.source.rate).toEqual([30000, 1001]);
  expect(report.shots[0]).toMatchObject({ pane: [0, 735, 1080, 450], backdrop: USUAL_BACKDROP, edge: PLAIN_EDGE });
  expect(report.windows).toEqual([
    [700.123, 540, 1080],
    [700.123, 540, 1080],
  ]);
  expect(report.tracks[0]!.boxes).toEqual([[1.3, 2, 30, 40], null]);
});

test("what is no report is refused", () => {
  for (const wrong of [
    { ...report, format: "other" },
    { ...report, version: 3 },
    { ...report, shots: [] },
    { ...report, shots: [{ ...report.shots[0], end: 0 }] },
    { ...report, windows: [[1, 2]] },
  ]) {
    expect(Report.safeParse(wrong).success).toBe(false);
  }
});

test("what was found is a report of its own, without a version", () => {
  const found = makeAnalysisReport(FILM, [
    {
      range: { start: 0, end: 2 },
      begins: { frame: 0, kind: "cut", range: { start: 0, end: 0 } },
      spans: [],
      subjectId: null,
      reason: "no clear subject",
      certainty: 0.3,
      tracks: [],
      active: null,
    },
  ]);
  expect(AnalysisReport.parse(JSON.parse(JSON.stringify(found)))).toEqual(found);
  expect(found.shots[0]).not.toHaveProperty("keys");
  expect(report.shots[0]!.certainty).toBe(0.812);
  expect([report.shots[0]!.active, found.shots[0]!.active]).toEqual([[0, 140, 1920, 800], undefined]);
  expect(report.tracks[0]).toMatchObject({ who: "p2", person: "s1-person-1", speaking: [[0, 2]] });
});

test("says what the film lacks, and keeps that when it is read again", () => {
  const lacking = { held: 21, longHolds: [{ start: 10, end: 30 }], undecoded: [{ start: 3, end: 4 }], cutOff: 90 };
  const film = { ...FILM, frames: 60, lacking };
  const shot = {
    range: { start: 0, end: 60 },
    begins: { frame: 0, kind: "cut" as const, range: { start: 0, end: 0 } },
    spans: [],
    subjectId: null,
    reason: "nobody",
    certainty: 1,
    tracks: [],
    active: null,
  };
  const written = AnalysisReport.parse(makeAnalysisReport(film, [shot]));
  expect(written.source.repeated).toEqual({ frames: 21, ranges: [[10, 30]] });
  expect(readReport(JSON.stringify(written)).lacking).toEqual(lacking);
  const whole = makeAnalysisReport({ ...film, lacking: { held: 0, longHolds: [], undecoded: [], cutOff: 0 } }, [shot]);
  expect(Object.keys(whole.source).sort()).toEqual(["file", "frames", "height", "rate", "width"]);
});
