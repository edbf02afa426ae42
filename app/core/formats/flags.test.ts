import { expect, test } from "@jest/globals";
import type { Flag } from "../checks/flag";
import { FlagList, flagsCsv, flagsJson, type FlagsToList } from "./flags";

const LOOK: Flag = {
  kind: "subject-cut",
  range: { start: 50, end: 75 },
  frame: 60,
  severity: 48,
  text: 'Face cut off for 1.0 s, up to 30% of it, "Ada"',
};
const LIST: FlagsToList = {
  film: "Kites.mp4",
  version: "Reel",
  clock: { rate: { num: 25, den: 1 }, first: 0, drop: false },
  flags: [{ ...LOOK, shot: 2, isReviewed: true }],
};

test("a table with frames and timecodes, in which a reason may have commas and quotes", () => {
  expect(flagsCsv(LIST).split("\n")).toEqual([
    "shot,kind,start_frame,end_frame,start,end,frame,severity,reviewed,reason",
    '2,subject-cut,50,75,00:00:02:00,00:00:03:00,60,48,yes,"Face cut off for 1.0 s, up to 30% of it, ""Ada"""',
    "",
  ]);
});

test("JSON that its own schema takes, and no other", () => {
  const list = flagsJson(LIST);
  expect(FlagList.parse(JSON.parse(JSON.stringify(list)))).toEqual(list);
  expect(list.flags[0]).toMatchObject({ start: 50, end: 75, reviewed: true });
  expect(FlagList.safeParse({ ...list, flags: [{ ...list.flags[0], kind: "unheard-of" }] }).success).toBe(false);
});
