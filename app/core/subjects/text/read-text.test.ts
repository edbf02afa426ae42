import { describe, expect, test } from "@jest/globals";
import { type Box, boxContains } from "../../geometry/box";
import type { Track } from "../tracking/track";
import { decodeLetters } from "./decode-letters";
import { lineColours } from "./line-colours";
import { aroundText, type ReadLine, withReading } from "./read-text";

describe("the letters of a line", () => {
  const LETTERS = ["", "a", "b", " "];
  const read = (...steps: [letter: number, sure: number][]) =>
    decodeLetters(
      Float32Array.from(steps.flatMap(([letter, sure]) => LETTERS.map((_, i) => (i === letter ? sure : 0.05)))),
      LETTERS,
    );

  test("count once while they last, and twice with a gap between them", () => {
    const { text, sure } = read([0, 0.9], [1, 0.8], [1, 0.9], [0, 0.9], [1, 0.6], [2, 1]);
    expect(text).toBe("aab");
    expect(sure).toBeCloseTo(0.8);
  });

  test("are none where nothing is seen, and spaces around them are left out", () => {
    expect(read([0, 0.9], [0, 0.9])).toEqual({ text: "", sure: 0, isKnown: false });
    expect(read([3, 0.9], [2, 0.9], [3, 0.9]).text).toBe("b");
  });

  test("are not known where they are unsure, or a stretch of the line has none", () => {
    const none = (steps: number) => Array.from({ length: steps }, (): [number, number] => [0, 0.9]);
    expect(read([1, 0.99], ...none(12), [2, 0.92]).isKnown).toBe(true);
    expect(read([1, 0.99], [0, 0.9], [2, 0.9]).isKnown).toBe(false);
    expect(read([1, 0.99], [2, 0.99], ...none(13)).isKnown).toBe(false);
  });
});

test("the colours of a line are that of its letters and that of its edge", () => {
  const [width, height] = [40, 12];
  const isLetter = (x: number, y: number) => y > 2 && y < 9 && x % 8 < 2;
  const pixels = Uint8Array.from({ length: 3 * width * height }, (_, i) => {
    const at = Math.floor(i / 3);
    return (isLetter(at % width, Math.floor(at / width)) ? [250, 240, 20] : [30, 60, 90])[i % 3]!;
  });
  expect(lineColours(pixels, width)).toEqual({ ink: [250, 240, 20], ground: [30, 60, 90] });
});

describe("a text that is read", () => {
  const PICTURE = { width: 1280, height: 720 };
  const box: Box = { x: 100, y: 600, width: 400, height: 100 };
  const track: Track = { id: "s0-text-1", kind: "text", start: 10, boxes: [box, box], confidence: 1 };
  const line = (text: string, at: Partial<Box> = {}, sure = 0.95): ReadLine => ({
    text,
    sure,
    isKnown: sure > 0.9,
    box: { ...box, height: 50, ...at },
    ink: [255, 255, 255],
    ground: [0, 0, 0],
  });
  const words = (...read: ReadLine[]) => withReading(track, read, PICTURE)?.words?.lines;

  test("has its lines from the top, and those side by side as one", () => {
    const below = line("Ferrow Kite Society", { y: 655, height: 30 });
    expect(words(below, line("Orbin", { x: 320, width: 180 }), line("Nela", { y: 603, width: 200 }))).toEqual([
      "Nela Orbin",
      "Ferrow Kite Society",
    ]);
  });

  test("says when only some of it was read, and nothing where no letter is certain", () => {
    const below = line("EEKLMONA", { y: 655, height: 30 }, 0.8);
    expect(withReading(track, [line("Nela Orbin"), below], PICTURE)!.words).toMatchObject({
      lines: ["Nela Orbin"],
      isPart: true,
    });
    expect(withReading(track, [line("Nela Orbin")], PICTURE)!.words).not.toHaveProperty("isPart");
    expect(withReading(track, [below], PICTURE)).toMatchObject({ id: track.id });
    expect(withReading(track, [below], PICTURE)).not.toHaveProperty("words");
  });

  test("is where its lines are in the large picture, for as long as before", () => {
    const wide = { x: 90, width: 560 };
    const read = withReading(track, [line("Nela Orbin, on the meadows", wide)], PICTURE)!;
    expect(read).toMatchObject({ start: 10, boxes: [{}, {}] });
    expect(boxContains(read.boxes[1]!, { ...box, ...wide, height: 50 })).toBe(true);
    expect(boxContains(aroundText(box), { ...box, ...wide })).toBe(false);
    expect(boxContains(aroundText(box), { ...box, x: 60, width: 480 })).toBe(true);
  });

  test("has no margin beyond the picture, where it would be cut off in every window", () => {
    const low = { ...box, y: 660, height: 58 };
    const at = withReading({ ...track, boxes: [low] }, [line("Nela Orbin", { y: 660, height: 58 })], PICTURE)!
      .boxes[0]!;
    expect(at.y).toBeLessThan(660);
    expect(at.y + at.height).toBe(PICTURE.height);
  });

  test("is not what else is written in the picture", () => {
    expect(words(line("Nela Orbin"), line("EXIT", { y: 100 }))).toEqual(["Nela Orbin"]);
  });

  test("stays without words where it cannot be read, unless it may be a sign, and is none where no line is found", () => {
    const unread = line("ᛘᛟ", {}, 0.3);
    expect(withReading(track, [unread], PICTURE)).toEqual(track);
    expect(withReading({ ...track, mayBeSign: true }, [unread], PICTURE)).toBeNull();
    expect(withReading(track, [], PICTURE)).toBeNull();
  });
});
