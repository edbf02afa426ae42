import { expect, test } from "@jest/globals";
import { fill } from "../composition/composition";
import { USUAL_PLAYBACK } from "../composition/picture";
import { clockOf } from "../time/timecode";
import { writeKeysCsv, writePathCsv, type WrittenShot } from "./path-csv";

const CLOCK = clockOf({ num: 25, den: 1 }, null);
const TALL = { width: 1080, height: 1920 };

/** A shot of which frames 10, 11 and 20 are shown; its window moves by ten pixels and a third per frame. */
const SHOT: WrittenShot = {
  number: 3,
  kept: [
    { start: 10, end: 12 },
    { start: 20, end: 21 },
  ],
  shown: (frame) => fill({ x: 500 + (31 / 3) * frame, y: 540, height: 1080 }, TALL),
  keys: [
    [{ frame: 10, x: 603.3333, y: 540, height: 1080, easing: "linear", by: "hand" }],
    [{ frame: 20, x: 700, y: 400, height: 540.5, easing: "hold", by: "solver" }],
  ],
};

test("a path is a row per frame that is shown, with centre and size of its window", () => {
  expect(writePathCsv([SHOT], CLOCK)).toBe(
    [
      "frame,timecode,shot,pane,x,y,width,height",
      "10,00:00:00:10,3,1,603.333,540,607.5,1080",
      "11,00:00:00:11,3,1,613.667,540,607.5,1080",
      "20,00:00:00:20,3,1,706.667,540,607.5,1080",
      "",
    ].join("\n"),
  );
});

test("a pane that shows something else than the film has no rows", () => {
  const picture = { id: "a".repeat(32), name: "logo.png", width: 10, height: 10 };
  const shown: WrittenShot["shown"] = (frame) => {
    const { panes, ...rest } = SHOT.shown(frame);
    return {
      ...rest,
      panes: [{ ...panes[0]!, own: { picture, playback: USUAL_PLAYBACK, frame: 0, slot: "1" } }, panes[0]!],
    };
  };
  const rows = writePathCsv([{ ...SHOT, kept: [{ start: 10, end: 11 }], shown }], CLOCK)
    .trim()
    .split("\n");
  expect(rows.slice(1)).toEqual(["10,00:00:00:10,3,2,603.333,540,607.5,1080"]);
});

test("keyframes are a row each, of each pane, with who has placed them", () => {
  expect(writeKeysCsv([SHOT], CLOCK)).toBe(
    [
      "frame,timecode,shot,pane,x,y,height,easing,by",
      "10,00:00:00:10,3,1,603.333,540,1080,linear,hand",
      "20,00:00:00:20,3,2,700,400,540.5,hold,solver",
      "",
    ].join("\n"),
  );
});
