import { describe, expect, test } from "@jest/globals";
import { hardTransition, type Transition } from "../shots/transition";
import { compareCuts } from "./compare-cuts";
import { clockOf } from "../time/timecode";
import type { CutList } from "./cut-list";
import { readCutsCsv, writeCutsCsv } from "./cuts-csv";
import { readEdl, writeEdl } from "./edl";
import { readOtio, writeOtio } from "./otio";

const RATE = { num: 30, den: 1 };
const DROP = { num: 30000, den: 1001 };
const TRANSITIONS: Transition[] = [
  hardTransition(84, "cut"),
  { frame: 180, kind: "dissolve", range: { start: 168, end: 192 } },
  hardTransition(300, "jump"),
  { frame: 420, kind: "fade", range: { start: 405, end: 440 } },
  { frame: 600, kind: "wipe", range: { start: 590, end: 610 } },
];
const list = (rate = RATE, transitions = TRANSITIONS): CutList => ({
  title: "Kite Day",
  clock: clockOf(rate, null),
  frames: 2400,
  transitions,
});

describe("edit decision lists", () => {
  test("speak the film's own timecode, and are read from it", () => {
    const clock = clockOf(RATE, "10:00:00:00");
    const text = writeEdl({ ...list(), clock });
    expect(text).toContain("10:00:00:00 10:00:0");
    expect(readEdl(text, clock, 2400)).toEqual(TRANSITIONS);
    expect(readCutsCsv(writeCutsCsv({ ...list(), clock }), clock, 2400)).toEqual(TRANSITIONS);
  });

  test("a title of several lines is one line, and no event", () => {
    const text = writeEdl({ ...list(), title: "Kite\r\n009  AX       V     C        00:00:01:00\nDay" });
    expect(text.split("\r\n")[0]).toBe("TITLE: Kite 009 AX V C 00:00:01:00 Day");
    expect(readEdl(text, clockOf(RATE, null), 2400)).toEqual(TRANSITIONS);
  });

  test("what is written is what is read, at whole and at drop-frame rates", () => {
    for (const rate of [RATE, DROP, { num: 24, den: 1 }]) {
      expect(readEdl(writeEdl(list(rate)), clockOf(rate, null), 2400)).toEqual(TRANSITIONS);
    }
  });

  test("the text is that of CMX 3600", () => {
    const lines = writeEdl(list(RATE, TRANSITIONS.slice(0, 2))).split("\r\n");
    expect(lines.slice(0, 4)).toEqual([
      "TITLE: Kite Day",
      "FCM: NON-DROP FRAME",
      "001  AX       V     C        00:00:00:00 00:00:02:24 00:00:00:00 00:00:02:24",
      "002  AX       V     C        00:00:02:24 00:00:05:18 00:00:02:24 00:00:05:18",
    ]);
    expect(lines[5]).toBe("003  AX       V     D    024 00:00:05:18 00:01:20:00 00:00:05:18 00:01:20:00");
  });

  test("switches are no cuts", () => {
    expect(
      readEdl(
        writeEdl(list(RATE, [hardTransition(50, "switch"), hardTransition(84, "cut")])),
        clockOf(RATE, null),
        2400,
      ),
    ).toEqual([hardTransition(84, "cut")]);
  });

  test("a programme that begins at an hour, with sound events and comments, is read", () => {
    const text = [
      "TITLE: ELSEWHERE",
      "001  REEL1    V     C        05:00:00:00 05:00:04:00 01:00:00:00 01:00:04:00",
      "* FROM CLIP NAME: MEADOW",
      "002  REEL1    A     C        05:00:00:00 05:00:03:00 01:00:00:00 01:00:03:00",
      "003  REEL2    V     C        02:00:10:00 02:00:12:00 01:00:04:00 01:00:06:00",
      "",
    ].join("\n");
    expect(readEdl(text, clockOf(RATE, null), 180)).toEqual([hardTransition(120, "cut")]);
  });

  test("what cannot be read says where", () => {
    expect(() => readEdl("hello", clockOf(RATE, null), 100)).toThrow("no event");
    expect(() => readEdl("001 AX V C 1 2 3", clockOf(RATE, null), 100)).toThrow("line 1 is no event");
    const late = "001  AX  V  C  00:00:00:00 00:00:01:45 00:00:00:00 00:00:01:45";
    expect(() => readEdl(late, clockOf(RATE, null), 100)).toThrow("00:00:01:45 is no timecode");
    expect(() => readEdl(writeEdl(list()), clockOf(RATE, null), 500)).toThrow("beyond the film's 500 frames");
  });
});

describe("OpenTimelineIO", () => {
  test("what is written is what is read, switches among it", () => {
    const all = [hardTransition(40, "switch"), ...TRANSITIONS];
    for (const rate of [RATE, DROP])
      expect(readOtio(writeOtio(list(rate, all), "kite.mp4"), clockOf(rate, null), 2400)).toEqual(all);
  });

  test("clips without a range of their own, gaps, and another rate are read", () => {
    const time = (value: number, rate: number) => ({ OTIO_SCHEMA: "RationalTime.1", value, rate });
    const range = (duration: number, rate: number) => ({
      OTIO_SCHEMA: "TimeRange.1",
      start_time: time(0, rate),
      duration: time(duration, rate),
    });
    const media = { DEFAULT_MEDIA: { OTIO_SCHEMA: "ExternalReference.1", available_range: range(48, 24) } };
    const track = {
      OTIO_SCHEMA: "Track.1",
      kind: "Video",
      children: [
        { OTIO_SCHEMA: "Clip.2", name: "A", source_range: null, media_references: media },
        { OTIO_SCHEMA: "Gap.1", source_range: range(1, 1) },
        { OTIO_SCHEMA: "Clip.1", name: "B", source_range: range(25, 25), metadata: { other: 1 } },
      ],
    };
    const sound = { OTIO_SCHEMA: "Track.1", kind: "Audio", children: track.children };
    const timeline = { OTIO_SCHEMA: "Timeline.1", tracks: { OTIO_SCHEMA: "Stack.1", children: [sound, track] } };
    expect(readOtio(JSON.stringify(timeline), clockOf(RATE, null), 200).map(({ frame }) => frame)).toEqual([60, 90]);
  });

  test("what cannot be read says why", () => {
    expect(() => readOtio("nothing", clockOf(RATE, null), 100)).toThrow("not JSON");
    const nested = `${'{"OTIO_SCHEMA":"Stack.1","children":['.repeat(5000)}${"]}".repeat(5000)}`;
    const deep = `{"OTIO_SCHEMA":"Timeline.1","tracks":${nested}}`;
    expect(() => readOtio(deep, clockOf(RATE, null), 100)).toThrow("nested too deeply");
    const bare = { OTIO_SCHEMA: "Transition.1" };
    const track = { OTIO_SCHEMA: "Track.1", kind: "Video", children: [bare] };
    const mixing = { OTIO_SCHEMA: "Timeline.1", tracks: { OTIO_SCHEMA: "Stack.1", children: [track] } };
    expect(() => readOtio(JSON.stringify(mixing), clockOf(RATE, null), 100)).toThrow("does not say how long it is");
    expect(() => readOtio("{}", clockOf(RATE, null), 100)).toThrow("no OpenTimelineIO timeline");
    const empty = { OTIO_SCHEMA: "Timeline.1", tracks: { OTIO_SCHEMA: "Stack.1", children: [] } };
    expect(() => readOtio(JSON.stringify(empty), clockOf(RATE, null), 100)).toThrow("no video track");
  });
});

describe("tables", () => {
  test("what is written is what is read", () => {
    const all = [hardTransition(40, "switch"), ...TRANSITIONS];
    const text = writeCutsCsv(list(RATE, all));
    expect(text.split("\n")[3]).toBe("3,84,180,00:00:02:24,00:00:06:00,cut,,");
    expect(readCutsCsv(text, clockOf(RATE, null), 2400)).toEqual(all);
  });

  test("timecodes alone will do", () => {
    expect(readCutsCsv("\uFEFFname,start\nA,00:00:00:00\nB,00:00:02:00\n", clockOf(RATE, null), 100)).toEqual([
      hardTransition(60, "cut"),
    ]);
  });

  test("what cannot be read says which row", () => {
    expect(() => readCutsCsv("a,b\n1,2", clockOf(RATE, null), 100)).toThrow('no column "start_frame"');
    expect(() => readCutsCsv("start_frame\n0\nsoon", clockOf(RATE, null), 100)).toThrow('row 3: "soon"');
    expect(() => readCutsCsv("start_frame,transition\n5,swirl", clockOf(RATE, null), 100)).toThrow(
      '"swirl" is no transition',
    );
    expect(() => readCutsCsv("start_frame,transition\n5,wipe", clockOf(RATE, null), 100)).toThrow("needs");
    expect(() => readCutsCsv("start_frame\n9\n5", clockOf(RATE, null), 100)).toThrow("out of order");
  });
});

test("lists are compared by frame, with those that are a frame or two off apart", () => {
  const at = (...frames: number[]) => frames.map((frame) => hardTransition(frame, "cut"));
  expect(compareCuts([...at(10, 20, 30), hardTransition(35, "switch"), ...at(40)], at(10, 21, 40, 55))).toEqual({
    same: 2,
    near: [{ here: 20, there: 21 }],
    onlyHere: [30],
    onlyThere: [55],
  });
});

test("a switch is read by the name that it had in Glad Pan 0.1", () => {
  const switches = [hardTransition(40, "switch")];
  const older = (text: string) => text.replaceAll(/([",])switch\b/g, "$1turn");
  const [csv, otio] = [older(writeCutsCsv(list(RATE, switches))), older(writeOtio(list(RATE, switches), "kite.mp4"))];
  for (const text of [csv, otio]) expect(text).toMatch(/[",]turn\b/);
  expect(readCutsCsv(csv, clockOf(RATE, null), 2400)).toEqual(switches);
  expect(readOtio(otio, clockOf(RATE, null), 2400)).toEqual(switches);
});
