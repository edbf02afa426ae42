import { describe, expect, test } from "@jest/globals";
import { placeAt, placeLayer } from "./draw-layer";
import { layersAt } from "./layer-at";
import { nameOfLayer, newBar, newText, type TextLayer } from "./layer";
import type { Pen } from "./pen";
import { resized } from "./resize-layer";
import { USUAL_SAFE_AREA } from "./safe-area";
import { snapBox } from "./snap";

const TALL = { width: 1080, height: 1920 };
const SQUARE = { width: 1080, height: 1080 };
const ground = (frame = TALL) => ({ frame, safe: USUAL_SAFE_AREA });

/** Every letter is half an em wide. */
const pen = {
  font: "",
  measureText(this: Pen, text: string) {
    return { width: (text.length * Number(/(\d+(?:\.\d+)?)px/.exec(this.font)![1])) / 2 };
  },
} as unknown as Pen;
const text = (words: string, more: Partial<TextLayer> = {}): TextLayer => ({
  ...newText("t", words),
  size: 100 / 1080,
  width: 1,
  ...more,
});
const linesOf = (layer: TextLayer, frame = TALL) =>
  placeLayer(layer, ground(frame), pen).block!.lines.map((line) => line.text);

describe("the lines of a text", () => {
  test("balance, and are no more than they have to be", () => {
    // 19 letters of 50 px in 972 px.
    expect(linesOf(text("kites above the sea"))).toEqual(["kites above the sea"]);
    expect(linesOf(text("kites above the salt meadows"))).toEqual(["kites above the", "salt meadows"]);
    expect(linesOf(text("one\ntwo"))).toEqual(["one", "two"]);
  });

  test("break between letters of scripts that have no spaces", () => {
    expect(linesOf(text("塩の草原の上を飛ぶ凧の午後に風が吹く日曜日の空", { shrinks: false })).length).toBe(2);
  });

  test("get smaller until they fit, if they may, and say so if not", () => {
    const long = text("unbreakablekitefestivaltitle", { shrinks: false });
    const block = (layer: TextLayer) => placeLayer(layer, ground(), pen).block!;
    expect([block(long).fits, block(long).em]).toEqual([false, 100]);
    const shrunk = block({ ...long, shrinks: true });
    expect(shrunk.fits).toBe(true);
    expect(shrunk.em).toBeLessThan(70);
  });

  test("have ends where they are aligned, inside a box with room beside them", () => {
    const box = { colour: "#000000", opacity: 100, corner: 0 };
    const { block } = placeLayer(text("ab", { align: "right", box }), ground(), pen);
    expect([block!.width, block!.lines[0]!.x]).toEqual([200, 50]);
    const { block: two } = placeLayer(text("abcd\nab", { align: "centre" }), ground(), pen);
    expect(two!.lines.map(({ x }) => x)).toEqual([0, 50]);
  });
});

describe("the place of a layer", () => {
  test("is at the safe area's edge in a frame of any shape", () => {
    for (const frame of [TALL, SQUARE]) {
      const { box } = placeLayer({ ...text("low"), x: 1, y: 1 }, ground(frame), pen);
      expect(box.x + box.width).toBeCloseTo(0.95 * frame.width);
      expect(box.y + box.height).toBeCloseTo(0.95 * frame.height);
    }
  });

  test("is found again from its box", () => {
    const layer = { ...text("kites"), x: 0.3, y: 0.7 };
    const place = placeAt({ x: 0, y: 0 }, placeLayer(layer, ground(), pen).box, ground());
    expect(place.x).toBeCloseTo(0.3);
    expect(place.y).toBeCloseTo(0.7);
    // Where it is as wide as the safe area, there is nothing to tell.
    expect(placeAt({ x: 0.5, y: 0 }, { x: 54, y: 200, width: 972, height: 100 }, ground()).x).toBe(0.5);
  });

  test("snaps to the middle, thirds and the safe area", () => {
    const near = { x: 100, y: 1920 / 3 + 5, width: 400, height: 60 };
    const { box, guides } = snapBox(near, ground(), 12);
    expect(box).toMatchObject({ x: 100, y: 1920 / 3 });
    expect(guides).toEqual([{ axis: "y", at: 1920 / 3 }]);
    expect(snapBox({ ...near, x: 345 }, ground(), 12).box.x).toBe(340);
    expect(snapBox({ ...near, x: 60 }, ground(), 12).box.x).toBe(54);
  });

  test("has an outline and a shadow around it", () => {
    const { box, ink } = placeLayer(text("kites", { outline: 0.1, shadow: 50 }), ground(), pen);
    expect(box.x - ink.x).toBeGreaterThan(10 + 0.22 * 1.5 * 100);
    expect(ink.height - box.height).toBeGreaterThan(2 * 43);
  });
});

describe("a layer that is resized", () => {
  test("by a corner has larger letters in the same lines, by a side other lines", () => {
    const layer = text("kites above the salt meadows");
    const { box } = placeLayer(layer, ground(), pen);
    const smaller = { ...box, width: box.width / 2, height: box.height / 2 };
    const corner = resized(layer, box, smaller, true, ground(), pen) as TextLayer;
    expect(corner.size).toBeCloseTo(layer.size / 2);
    expect(linesOf(corner)).toEqual(linesOf(layer));
    const side = resized(layer, box, { ...box, width: 420 }, false, ground(), pen) as TextLayer;
    expect(side.size).toBe(layer.size);
    expect(linesOf(side).length).toBeGreaterThan(2);
  });

  test("a bar keeps the corner that is not dragged", () => {
    const bar = newBar("b");
    const { box } = placeLayer(bar, ground(), pen);
    const wider = resized(bar, box, { ...box, width: 500 }, false, ground(), pen);
    expect(placeLayer(wider, ground(), pen).box).toMatchObject({ x: box.x, width: 500 });
  });
});

describe("layers at a frame", () => {
  const whole = { start: 10, end: 110 };
  const at = (layer: TextLayer, frame: number) => layersAt([layer], frame, whole, 25)[0];

  test("are there in their range, or in all that is shown", () => {
    expect([9, 10, 109, 110].map((frame) => Boolean(at(text("a"), frame)))).toEqual([false, true, true, false]);
    const range = { start: 40, end: 50 };
    expect([39, 40, 49, 50].map((frame) => Boolean(at(text("a", { range }), frame)))).toEqual([
      false,
      true,
      true,
      false,
    ]);
  });

  test("fade, slide, or are there at once", () => {
    expect(at(text("a", { arrives: "cut", opacity: 50 }), 10)).toMatchObject({ opacity: 0.5, shift: { y: 0 } });
    const fading = [10, 14, 19, 30].map((frame) => at(text("a"), frame)!.opacity);
    expect(fading).toEqual([...fading].sort((a, b) => a - b));
    expect(fading[0]).toBeLessThan(0.05);
    expect(fading.at(-1)).toBe(1);
    expect(at(text("a", { arrives: "slide" }), 12)!.shift.y).toBeGreaterThan(0);
    expect(at(text("a", { leaves: "slide" }), 107)!.shift.y).toBeLessThan(0);
  });

  test("are called by what they are", () => {
    expect(nameOfLayer(text("Kites\nabove  the sea"))).toBe("text “Kites above the sea”");
    expect(nameOfLayer(newBar("b"))).toBe("bar");
  });
});
