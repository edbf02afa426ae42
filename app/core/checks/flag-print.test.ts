import { expect, test } from "@jest/globals";
import { fill } from "../composition/composition";
import type { CropWindow } from "../geometry/crop-window";
import { flagPrint } from "./flag-print";
import type { Flag } from "./flag";

const SHOT = { id: "s", start: 100 };
const TALL = { width: 1080, height: 1920 };
const LOOK: Flag = {
  kind: "subject-cut",
  range: { start: 120, end: 140 },
  frame: 125,
  text: "Face cut off for 0.8 s",
  severity: 50,
};
const at = (x: (frame: number) => number) => (frame: number) =>
  fill({ x: x(frame), y: 540, height: 1080 } satisfies CropWindow, TALL);
const print = (x: (frame: number) => number, flag = LOOK, shot = SHOT) => flagPrint(flag, shot, at(x));

test("stays while nothing in the range changes, whatever changes beside it, and where its shot is moved as a whole", () => {
  const before = print(() => 500);
  expect(print((frame) => (frame < 120 || frame >= 140 ? 700 : 500))).toBe(before);
  const moved = { ...LOOK, range: { start: 320, end: 340 }, frame: 325 };
  expect(print(() => 500, moved, { ...SHOT, start: 300 })).toBe(before);
});

test("is another when a frame of the range shows something else, or the reason is another, or the shot", () => {
  const before = print(() => 500);
  expect(print((frame) => (frame === 139 ? 502 : 500))).not.toBe(before);
  expect(print(() => 500, { ...LOOK, text: "Face cut off for 0.9 s" })).not.toBe(before);
  expect(print(() => 500, { ...LOOK, kind: "text-cut" })).not.toBe(before);
  expect(print(() => 500, LOOK, { ...SHOT, id: "t" })).not.toBe(before);
});

test("of what is about the shot and not about its window, it does not depend on the window", () => {
  const unsure: Flag = { ...LOOK, kind: "two-alike" };
  expect(print(() => 500, unsure)).toBe(print(() => 700, unsure));
  expect(flagPrint(unsure, SHOT, null)).toBe(print(() => 500, unsure));
});
