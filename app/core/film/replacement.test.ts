import { expect, test } from "@jest/globals";
import { TALL, TWO_SHOTS } from "../../../tests/support/film-state";
import { matchNote, lostBetween } from "./replacement";

const match = (change: Partial<Parameters<typeof matchNote>[0]> = {}) => ({
  id: "one",
  range: { start: 0, end: 10 },
  shift: 0,
  likeness: 0.95,
  share: 1,
  ...change,
});

test("a shot needs a look where it is gone, where some of it is, and where it looks otherwise, in this order", () => {
  expect(matchNote(match())).toBeNull();
  expect([matchNote(match({ share: 0.98 })), matchNote(match({ likeness: 0.92 }))]).toEqual([null, null]);
  const said = [match({ range: null, share: 0 }), match({ share: 0.5, likeness: 0 }), match({ likeness: 0.5 })].map(
    matchNote,
  );
  expect(said.map((text) => /50%/.test(text ?? ""))).toEqual([false, true, true]);
  expect(new Set(said).size).toBe(3);
});

test("what is lost is counted: hand keys of all versions, and marks of things that were marked before", () => {
  const key = (frame: number) => ({ pane: 0, frame, x: 960, y: 540, height: 1080, easing: null });
  const mark = (thing: string, frame: number) => ({ thing, frame, box: { x: 0, y: 0, width: 9, height: 9 } });
  const before = {
    ...TWO_SHOTS,
    versions: [
      { ...TALL, handKeys: [key(1), key(2)] },
      { ...TALL, id: "other", handKeys: [key(3)] },
    ],
    marks: [mark("a", 1), mark("a", 2), mark("b", 3)],
  };
  const after = { ...before, versions: [{ ...TALL, handKeys: [key(1)] }], marks: [mark("a", 1), mark("new", 9)] };
  expect(lostBetween(before, after)).toEqual({ keys: 2, marks: 2 });
  expect(lostBetween(before, before)).toEqual({ keys: 0, marks: 0 });
});
