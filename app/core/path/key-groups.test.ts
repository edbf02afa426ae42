import { expect, test } from "@jest/globals";
import type { HandKey } from "./hand-key";
import { copiedKeys, movedKeys, nudged, pastedKeys } from "./key-groups";

const key = (frame: number, x: number): HandKey => ({ pane: 0, frame, x, y: 540, height: 1080, easing: "ease" });

test("keys that are copied keep their distances, and none gets beyond the shot", () => {
  const copied = copiedKeys([key(40, 700), key(30, 600), key(70, 900)]);
  expect(copied.map(({ after, x }) => [after, x])).toEqual([
    [0, 600],
    [10, 700],
    [40, 900],
  ]);
  const pasted = pastedKeys(copied, 110, 1, { start: 100, end: 150 });
  expect(pasted).toEqual([
    { ...key(110, 600), pane: 1 },
    { ...key(120, 700), pane: 1 },
  ]);
});

test("keys that are moved in time keep their distances, and stop at the cuts together", () => {
  const shot = { start: 100, end: 150 };
  const moved = (by: number) => movedKeys([key(110, 1), key(130, 2)], by, shot).map(({ frame }) => frame);
  expect([moved(5), moved(-50), moved(50)]).toEqual([
    [115, 135],
    [100, 120],
    [129, 149],
  ]);
});

test("keys that are nudged keep all but their place", () => {
  expect(nudged([key(5, 100), key(9, 200)], { x: 12, y: -3 })).toEqual([
    { ...key(5, 112), y: 537 },
    { ...key(9, 212), y: 537 },
  ]);
});
