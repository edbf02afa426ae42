import { describe, expect, test } from "@jest/globals";
import type { Track } from "../subjects/tracking/track";
import { readReport } from "./read-report";
import { makeAnalysisReport } from "./write-report";

const FILM = { file: "kite.mp4", picture: { width: 1920, height: 1080 }, rate: { num: 25, den: 1 }, frames: 50 };
const TRACKS: Track[] = [
  {
    id: "s0-face-1",
    kind: "face",
    start: 3,
    boxes: [{ x: 1.3, y: 2, width: 30, height: 40 }, null],
    confidence: 0.9,
    who: "p2",
    personId: "s0-person-1",
    speaking: [{ start: 3, end: 4 }],
    facing: [{ frame: 3, side: -0.4 }],
  },
];
const found = [
  {
    range: { start: 0, end: 20 },
    begins: { frame: 0, kind: "cut" as const, range: { start: 0, end: 0 } },
    spans: [],
    subjectId: "s0-face-1",
    reason: "only face",
    certainty: 0.8,
    tracks: TRACKS,
    active: { x: 0, y: 140, width: 1920, height: 800 },
  },
  {
    range: { start: 20, end: 50 },
    begins: { frame: 20, kind: "dissolve" as const, range: { start: 15, end: 24 } },
    spans: [],
    subjectId: null,
    reason: "nobody",
    certainty: 0.3,
    tracks: [],
    active: null,
  },
];

describe("a report that is read", () => {
  test("gives back what was found, shot by shot", () => {
    const film = readReport(JSON.stringify(makeAnalysisReport(FILM, found)));
    expect(film).toMatchObject(FILM);
    expect(film.shots).toEqual(found.map(({ range, begins, tracks, active }) => ({ range, begins, tracks, active })));
  });

  test("says what is wrong with it", () => {
    const report = makeAnalysisReport(FILM, found);
    expect(() => readReport("{")).toThrow("this is not JSON");
    expect(() => readReport("null")).toThrow("no report");
    expect(() => readReport(JSON.stringify({ ...report, source: { ...report.source, rate: [0, 1] } }))).toThrow(
      "source.rate.0",
    );
    expect(() => readReport(JSON.stringify({ ...report, shots: [{ ...report.shots[0], end: 0 }] }))).toThrow(
      "a shot must end after it starts",
    );
  });
});
