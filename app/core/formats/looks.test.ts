import { expect, test } from "@jest/globals";
import type { SecondLook } from "../checks/second-look";
import { LookList, looksCsv, looksJson, type LooksToList } from "./looks";

const LOOK: SecondLook = {
  ...{ kind: "subject-cut", range: { start: 50, end: 75 }, frame: 60, severity: 48 },
  text: 'Face cut off for 1.0 s, up to 30% of it, "Ada"',
};
const LIST: LooksToList = {
  ...{ film: "Kites.mp4", version: "Reel", clock: { rate: { num: 25, den: 1 }, first: 0, drop: false } },
  looks: [{ ...LOOK, shot: 2, isSeen: true }],
};

test("a table with frames and timecodes, in which a reason may have commas and quotes", () => {
  expect(looksCsv(LIST).split("\n")).toEqual([
    "shot,kind,start_frame,end_frame,start,end,frame,severity,seen,reason",
    '2,subject-cut,50,75,00:00:02:00,00:00:03:00,60,48,yes,"Face cut off for 1.0 s, up to 30% of it, ""Ada"""',
    "",
  ]);
});

test("JSON that its own schema takes, and no other", () => {
  const list = looksJson(LIST);
  expect(LookList.parse(JSON.parse(JSON.stringify(list)))).toEqual(list);
  expect(list.looks[0]).toMatchObject({ start: 50, end: 75, seen: true });
  expect(LookList.safeParse({ ...list, looks: [{ ...list.looks[0], kind: "unheard-of" }] }).success).toBe(false);
});
