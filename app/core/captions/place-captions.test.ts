import { describe, expect, test } from "@jest/globals";
import { type Composition, compose } from "../composition/composition";
import { layOut } from "../composition/layout";
import { newBar, newText } from "../composition/layers/layer";
import { type Box, wholeOf } from "../geometry/box";
import { USUAL_FRAMING } from "../path/framing-settings";
import type { Track } from "../subjects/tracking/track";
import type { Caption } from "./caption";
import { captionLayers, lineLengthIn } from "./caption-layers";
import { type CaptionSettings, USUAL_CAPTIONS } from "./caption-settings";
import { layerBoxesIn, obstaclesIn, placeCaptions } from "./place-captions";

const FRAME = { width: 1080, height: 1920 };
const SAFE = { left: 0.05, top: 0.05, right: 0.05, foot: 0.2 };
const caption = (
  id: string,
  start: number,
  end: number,
  text = "The wind turns",
  speaker: string | null = null,
): Caption => ({
  id,
  start,
  end,
  text,
  speaker,
});
const place = (
  captions: Caption[],
  obstaclesAt: (frame: number) => Box[],
  settings: CaptionSettings = USUAL_CAPTIONS,
) => [...placeCaptions(captions, settings, { frame: FRAME, safe: SAFE, obstaclesAt, fps: 25 }).values()];
/** Somebody's face where captions usually stand. */
const LOW: Box = { x: 200, y: 1250, width: 700, height: 400 };

describe("captions", () => {
  test("stand at the foot of the safe area where nothing is, and go up where a face is", () => {
    const all = [caption("a", 0, 50), caption("b", 60, 110)];
    expect(place(all, () => [])).toEqual([1, 1]);
    const [place0] = place([all[0]!], () => [LOW]);
    expect(place0).toBeLessThan(0.8);
    expect(place0).toBeGreaterThan(0);
  });

  test("move as rarely as can be: one that would stand alone at the foot between others stays with them", () => {
    const all = [0, 1, 2, 3, 4].map((i) => caption(`c${i}`, 60 * i, 60 * i + 55));
    const between = place(all, (frame) => (frame < 115 || frame >= 180 ? [LOW] : []));
    expect(new Set(between).size).toBe(1);
    // Where nothing is for long, they come down again.
    const after = place(all, (frame) => (frame < 60 ? [LOW] : []));
    expect(after.slice(1)).toEqual([1, 1, 1, 1]);
    expect(after[0]).toBeLessThan(1);
  });

  test("stay where the editor has put one, or all of them", () => {
    const all = [caption("a", 0, 50), caption("b", 60, 110)];
    expect(place(all, () => [LOW], { ...USUAL_CAPTIONS, places: { b: 0.9 } })[1]).toBe(0.9);
    expect(place(all, () => [LOW], { ...USUAL_CAPTIONS, place: 0.4, places: { b: 0.9 } })).toEqual([0.4, 0.9]);
  });

  test("have as many letters in a line as the version has room for, unless a rule says how many", () => {
    const wide = lineLengthIn(USUAL_CAPTIONS, { width: 1920, height: 1080 }, SAFE);
    const tall = lineLengthIn(USUAL_CAPTIONS, FRAME, SAFE);
    expect(wide).toBe(42);
    expect(tall).toBeLessThan(wide);
    expect(lineLengthIn({ ...USUAL_CAPTIONS, size: 0.1 }, FRAME, SAFE)).toBeLessThan(tall);
    const rules = { ...USUAL_CAPTIONS.rules, lineLength: 20 };
    expect(lineLengthIn({ ...USUAL_CAPTIONS, rules }, FRAME, SAFE)).toBe(20);
  });
});

describe("layers of captions", () => {
  const layers = (captions: Caption[], change: Partial<CaptionSettings> = {}) =>
    captionLayers(captions, { ...USUAL_CAPTIONS, ...change }, new Map([["a", 0.5]]), FRAME, SAFE);

  test("are there for their time and at their place, and say nothing where there is no text", () => {
    expect(layers([caption("a", 10, 60), caption("b", 60, 90, " ")])).toMatchObject([
      { range: { start: 10, end: 60 }, y: 0.5, text: "The wind turns", highlight: null },
    ]);
  });

  test("tell several speakers apart by name and colour, and do not name one who is alone", () => {
    const two = [caption("a", 0, 50, "Come", "Ada"), caption("b", 50, 90, "No", "Bram")];
    const told = layers(two, { speakers: true });
    expect(told.map(({ text }) => text)).toEqual(["Ada: Come", "Bram: No"]);
    expect(told[0]!.colour).not.toBe(told[1]!.colour);
    expect(layers([two[0]!], { speakers: true })[0]!.text).toBe("Come");
  });

  test("have one for each word where the one that is said stands out, in proportion to its syllables", () => {
    const words = layers([caption("a", 0, 100, "remember the goat")], { highlight: "#ffd166" });
    expect(words.map(({ text, highlight }) => text.slice(highlight!.from, highlight!.to))).toEqual([
      "remember",
      "the",
      "goat",
    ]);
    expect(words.map(({ range }) => range)).toEqual([
      { start: 0, end: 60 },
      { start: 60, end: 80 },
      { start: 80, end: 100 },
    ]);
  });
});

describe("what captions are kept off", () => {
  const shown = (): Composition =>
    compose(
      [{ x: 960, y: 540, height: 1080 }],
      layOut(USUAL_FRAMING, wholeOf({ width: 1920, height: 1080 }), FRAME),
      FRAME,
    );
  const track = (kind: Track["kind"], box: Box): Track => ({
    id: kind,
    kind,
    start: 0,
    confidence: 1,
    boxes: [box],
  });
  // The window shows the middle of the picture, 607.5 pixels of it; its left edge is at 656.
  const box = { x: 900, y: 400, width: 100, height: 120 };

  test("are faces with a margin, and texts, where the version shows them; nothing that is outside of it", () => {
    const tracks = [track("face", box), track("text", box), track("person", box), track("face", { ...box, x: 100 })];
    const at = obstaclesIn([{ start: 0, end: 1, tracks }], shown);
    const scale = 1920 / 1080;
    expect(at(0)).toHaveLength(2);
    const [face, text] = at(0);
    expect(text!.x).toBeCloseTo((900 - 656.25) * scale, 0);
    expect(text!.width).toBeCloseTo(100 * scale);
    expect(face!.width).toBeCloseTo((100 + 2 * 0.15 * 120) * scale);
    expect(at(5)).toEqual([]);
  });

  test("are the version's own layers, for as long as they are there", () => {
    const title = { ...newText("title", "What the wind brings"), range: { start: 10, end: 20 }, y: 1 };
    const at = layerBoxesIn([title, newBar("bar")], FRAME, SAFE);
    expect(at(5)).toHaveLength(1);
    const [text, bar] = at(15);
    expect(text!.y + text!.height).toBeCloseTo(0.8 * FRAME.height);
    expect(bar!.width).toBeCloseTo(0.9 * FRAME.width);
  });
});
