import { describe, expect, test } from "@jest/globals";
import { type Box, boxContains, wholeOf } from "../geometry/box";
import { fill } from "../composition/composition";
import { WHOLE } from "../composition/layout";
import { USUAL_FRAMING } from "../path/framing-settings";
import type { Track } from "../subjects/tracking/track";
import type { FrameRange } from "../time/rate";
import { textIsCovered } from "./covered-text";
import type { Words } from "../subjects/text/words";
import { layoutOffers, type ShotAtFlag } from "./layout-offers";

const HD = { width: 1920, height: 1080 };
const RANGE = { start: 45, end: 80 };
const at: ShotAtFlag = {
  settings: USUAL_FRAMING,
  start: 40,
  area: wholeOf(HD),
  frame: { width: 1080, height: 1920 },
  window: { x: 500, y: 540, height: 1080 },
  cut: { x: 300, y: 800, width: 1300, height: 120 },
  other: { x: 1400, y: 300, width: 200, height: 300 },
  text: { range: RANGE, words: null },
  safeArea: null,
};
const names = (kind: Parameters<typeof layoutOffers>[0]["kind"], more: Partial<ShotAtFlag> = {}) =>
  layoutOffers({ kind, otherId: "b" }, { ...at, ...more }).map(({ id }) => id);

describe("layouts that would do", () => {
  test("are offered for what does not fit, and only while the window fills the frame", () => {
    expect(names("text-cut")).toEqual(["whole", "lift", "replace"]);
    expect(names("text-cut", { text: null })).toEqual(["whole", "lift"]);
    expect(names("two-apart")).toEqual(["stack-two", "whole"]);
    expect(names("two-apart", { other: null })).toEqual(["whole"]);
    expect(names("subject-cut")).toEqual([]);
    expect(names("text-cut", { settings: { ...USUAL_FRAMING, layout: WHOLE } })).toEqual([]);
  });

  test("give text a pane that shows all of it from the shot's first frame on, and leave most to the subject", () => {
    const [, lift] = layoutOffers({ kind: "text-cut" }, at);
    const [first, second] = lift!.shown.panes;
    expect(boxContains(second!.source, at.cut!)).toBe(true);
    expect(second!.source.height).toBeLessThan(400);
    expect(first!.target.height / 1920).toBeGreaterThan(0.8);
    expect(lift!.keys).toEqual([expect.objectContaining({ pane: 1, frame: 40, easing: "hold" })]);
    expect(lift!.change.panes).toEqual([{ follow: { kind: "none" }, movement: "still" }]);
  });

  test("say on the bar what was read, in the colours of the text", () => {
    const words: Words = { lines: ["Nela Orbin", "Kites"], ink: [255, 240, 10], ground: [0, 16, 32] };
    const [, , replaced] = layoutOffers({ kind: "text-cut" }, { ...at, text: { range: RANGE, words } });
    expect(replaced!.layers).toMatchObject([
      { kind: "shape", colour: "#001020" },
      { kind: "text", text: "Nela Orbin\nKites", colour: "#fff00a" },
    ]);
    const part = { range: RANGE, words: { ...words, isPart: true as const } };
    const [, , toBeTyped] = layoutOffers({ kind: "text-cut" }, { ...at, text: part });
    expect(toBeTyped!.layers).toMatchObject([{ colour: "#001020" }, { text: "Your text", colour: "#fff00a" }]);
    const sizeOf = (lines: string[]) => {
      const [, , offer] = layoutOffers(
        { kind: "text-cut" },
        { ...at, text: { range: RANGE, words: { ...words, lines } } },
      );
      const layer = offer!.layers![1];
      return layer?.kind === "text" ? layer.size : 0;
    };
    // As large as the rows into which they break allow, and never so that a word is wider than the frame.
    const long = "one two three four five six seven eight nine ten eleven twelve";
    expect(sizeOf(["Ox", "Ox"]) / sizeOf(["Ox", "Ox", "Ox"])).toBeCloseTo(3 / 2);
    expect(sizeOf([long])).toBeLessThan(sizeOf(["one two"]));
    const word = "Unforgettableness".repeat(2);
    expect(0.55 * word.length * sizeOf([word])).toBeLessThan(1);
  });

  test("cover text with a bar for as long as it is there, with one's own in its middle", () => {
    const [, , replaced] = layoutOffers({ kind: "text-cut" }, at);
    const [bar, words] = replaced!.layers!;
    expect([bar, words]).toMatchObject([
      { kind: "shape", range: RANGE, opacity: 100 },
      { kind: "text", range: RANGE },
    ]);
    const textAt = (box: Box): Track[] => [
      { id: "t", kind: "text", start: 40, boxes: Array.from({ length: 40 }, () => box), confidence: 1 },
    ];
    const above = { layers: [bar!, words!], safeArea: null, size: at.frame, fps: 25 };
    const isCovered = (box: Box, during: FrameRange, layers = above.layers) =>
      textIsCovered(textAt(box), [during], () => fill(at.window, at.frame), { ...above, layers });
    expect(isCovered(at.cut!, RANGE)).toBe(true);
    expect(isCovered({ ...at.cut!, y: 600 }, RANGE)).toBe(false);
    // Neither before it is there, nor where it can be seen through.
    expect(isCovered(at.cut!, { start: 40, end: 80 })).toBe(false);
    expect(isCovered(at.cut!, RANGE, [{ ...bar!, opacity: 60 }])).toBe(false);
  });

  test("of two who are apart give each a pane", () => {
    const [stack] = layoutOffers({ kind: "two-apart", otherId: "b" }, at);
    const [first, second] = stack!.shown.panes;
    expect(first!.source.x).toBe(0);
    expect(boxContains(second!.source, at.other!)).toBe(true);
    expect(stack!.change.panes).toEqual([{ follow: { kind: "track", trackId: "b" } }]);
  });
});
