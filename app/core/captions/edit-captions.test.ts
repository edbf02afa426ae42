import { describe, expect, test } from "@jest/globals";
import type { Caption } from "./caption";
import { captionFaults, mendCaption } from "./caption-faults";
import { USUAL_CAPTIONS } from "./caption-settings";
import {
  captionsWith,
  dragCaption,
  mergeCaptions,
  offCuts,
  replaceInCaptions,
  roomOf,
  shiftCaptions,
  snapped,
  splitCaption,
} from "./edit-captions";

const RATE = { num: 25, den: 1 };
const { rules } = USUAL_CAPTIONS;
const caption = (id: string, start: number, end: number, text: string, speaker: string | null = null): Caption => ({
  id,
  start,
  end,
  text,
  speaker,
});

describe("a caption", () => {
  test("is split at a letter, its time by its syllables, and merged again", () => {
    const whole = caption("a", 100, 200, "over the water and home", "Ada");
    const [first, second] = splitCaption(whole, 14, "b")!;
    expect([first.text, second.text, second.id, second.speaker]).toEqual(["over the water", "and home", "b", "Ada"]);
    expect(first.end).toBe(second.start);
    expect(first.end).toBeGreaterThan(150);
    expect(mergeCaptions([first, second])).toEqual(whole);
    expect(mergeCaptions([first, { ...second, speaker: "Bram" }]).speaker).toBeNull();
    expect([0, 99].map((letter) => splitCaption(whole, letter, "b"))).toEqual([null, null]);
    expect(splitCaption({ ...whole, end: 101 }, 5, "b")).toBeNull();
  });

  test("is shifted within the film", () => {
    expect(shiftCaptions([caption("a", 10, 30, "x"), caption("b", 90, 99, "y")], -20, 100)).toMatchObject([
      { start: 0, end: 10 },
      { start: 70, end: 79 },
    ]);
    expect(shiftCaptions([caption("b", 90, 99, "y")], 50, 100)).toMatchObject([{ start: 99, end: 100 }]);
  });

  test("is found and replaced in small letters and large, as plain text", () => {
    const all = [caption("a", 0, 10, "A (kite)"), caption("b", 10, 20, "kite, KITE"), caption("c", 20, 30, "bird")];
    expect(captionsWith(all, "kite").map(({ id }) => id)).toEqual(["a", "b"]);
    expect(captionsWith(all, "")).toEqual([]);
    expect(replaceInCaptions(all, "(kite)", "$& & co").map(({ text }) => text)).toEqual(["A $& & co"]);
    expect(replaceInCaptions(all, "Kite", "dragon").map(({ text }) => text)).toEqual(["A (dragon)", "dragon, dragon"]);
  });
});

describe("what is dragged", () => {
  const snap = { cuts: [100], speech: [{ start: 140, end: 180 }], reach: 3, flash: 5 };

  test("comes to rest at cuts first, further off than at speech, so that nothing flashes over one", () => {
    expect([96, 105, 106, 138, 136, 182].map((frame) => snapped(frame, snap))).toEqual([100, 100, 106, 140, 136, 180]);
  });

  test("or timed does not show for a few frames beside a cut, unless it is no longer than that", () => {
    const all = [
      caption("a", 96, 150, "x"),
      caption("b", 40, 104, "y"),
      caption("c", 60, 110, "z"),
      caption("d", 98, 102, "w"),
    ];
    expect(offCuts(all, [100], 5).map(({ start, end }) => [start, end])).toEqual([
      [100, 150],
      [40, 100],
      [60, 110],
      [98, 102],
    ]);
  });

  test("stays between its neighbours, and a frame long", () => {
    const all = [caption("a", 0, 40, "x"), caption("b", 50, 70, "y"), caption("c", 90, 120, "z")];
    const [, middle] = all;
    const room = roomOf(all, middle!, 300);
    expect(room).toEqual({ start: 40, end: 90 });
    expect(dragCaption(middle!, "whole", -30, room, null)).toMatchObject({ start: 40, end: 60 });
    expect(dragCaption(middle!, "whole", 50, room, null)).toMatchObject({ start: 70, end: 90 });
    expect(dragCaption(middle!, "start", 40, room, null)).toMatchObject({ start: 69, end: 70 });
    expect(dragCaption(middle!, "end", -40, room, null)).toMatchObject({ start: 50, end: 51 });
    expect(dragCaption(caption("d", 110, 130, "w"), "whole", 8, { start: 0, end: 300 }, snap)).toMatchObject({
      start: 120,
      end: 140,
    });
  });
});

describe("rules", () => {
  const faults = (one: Caption, next?: Caption) => captionFaults(one, next, rules, 30, RATE).map(({ kind }) => kind);

  test("tell what is too much, too quick, too short, too long, or flickers", () => {
    expect(faults(caption("a", 0, 50, "The wind turns"))).toEqual([]);
    expect(faults(caption("a", 0, 60, "one\ntwo\nthree"))).toEqual(["lines"]);
    expect(faults(caption("a", 0, 100, "a line of more than thirty letters\nhere"))).toEqual(["line-length"]);
    expect(faults(caption("a", 0, 25, "The wind turns over the bay"))).toEqual(["pace"]);
    expect(faults(caption("a", 0, 10, "Yes"))).toEqual(["short"]);
    expect(faults(caption("a", 0, 200, "Yes"))).toEqual(["long"]);
    expect(faults(caption("a", 0, 50, "Yes"), caption("b", 49, 90, "No"))).toEqual(["overlap"]);
    expect(faults(caption("a", 0, 50, "  "), caption("b", 51, 90, "No"))).toEqual(["empty"]);
    // Four tenths of a second are ten frames; one frame more or less is no fault.
    const gap = (next: number) =>
      captionFaults(
        ...([caption("a", 0, 50, "Yes"), caption("b", next, next + 40, "No")] as const),
        ...([{ ...rules, gap: 0.4 }, 30, RATE] as const),
      ).map(({ kind, limit }) => [kind, limit]);
    expect([50, 51, 58, 60].map(gap)).toEqual([[], [["gap", 0.4]], [["gap", 0.4]], []]);
    const measured = captionFaults(caption("a", 0, 25, "x".repeat(30)), undefined, rules, 30, RATE);
    expect(measured).toEqual([{ kind: "pace", value: 30, limit: 20 }]);
  });

  test("are mended from the room beside a caption, which is split where it says too much", () => {
    let made = 0;
    const mend = (one: Caption, before?: Caption, next?: Caption) =>
      mendCaption(one, before, next, rules, 30, RATE, () => `new-${++made}`);
    expect(mend(caption("a", 100, 110, "Yes")).put).toMatchObject([{ start: 100, end: 120 }]);
    const next = caption("b", 112, 200, "No");
    expect(mend(caption("a", 100, 110, "Yes"), undefined, next).put).toMatchObject([{ start: 92, end: 112 }]);
    expect(mend(caption("a", 100, 110, "Yes"), caption("z", 0, 97, "So"), next).put).toMatchObject([
      { start: 97, end: 112 },
    ]);
    expect(mend(caption("a", 0, 400, "Yes")).put).toMatchObject([{ start: 0, end: 150 }]);
    expect(mend(caption("a", 0, 60, "Yes"), undefined, caption("b", 50, 90, "No")).put).toMatchObject([{ end: 50 }]);
    expect(mend(caption("a", 0, 50, " "))).toEqual({ removed: ["a"], put: [] });
    const long = caption(
      "a",
      0,
      200,
      "We walked along the wall and counted the boats, and then we walked all the way back again.",
    );
    const { put } = mend(long);
    expect(put.length).toBeGreaterThan(1);
    expect(put.map(({ text }) => text).join(" ")).toBe(long.text);
    expect(put.flatMap((part, i) => faults(part, put[i + 1]))).toEqual([]);
    expect(new Set(put.map(({ id }) => id)).size).toBe(put.length);
  });
});
