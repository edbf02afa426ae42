import { describe, expect, test } from "@jest/globals";
import { isInk, lineSize } from "../../../../tests/support/letters";
import { texture } from "../../../../tests/support/yuv-picture";
import { type Box, boxContains, scaleBox } from "../../geometry/box";
import type { GreyPlane } from "../../image/grey-plane";
import type { FrameDetections } from "../detecting/detection";
import { edgesOf, steadyEdges } from "./steady-edges";
import { TextDue } from "./text-due";
import { linesInMap } from "./text-regions";
import { textTracks } from "./text-tracks";
import { type SeenText, TextWatch } from "./text-watch";

const SIZE = { width: 320, height: 180 };
const LINE = "HELLO NATO TALE";
const AT = { x: 60, y: 120 };
const INK: Box = { ...AT, ...lineSize(LINE), height: 14 };
/** Pictures between two looks. */
const LOOK = 5;

function picture(luma: (x: number, y: number) => number): GreyPlane {
  const samples = new Uint8Array(SIZE.width * SIZE.height);
  for (let i = 0; i < samples.length; i++) samples[i] = luma(i % SIZE.width, Math.floor(i / SIZE.width));
  return { ...SIZE, samples };
}
const ground = (shift: number) => (x: number, y: number) => 110 + 150 * texture(x + shift, y, 6);
const wall = (x: number, y: number) => 110 + 40 * texture(x, y, 9);
/** A line over what is behind it, so opaque; somebody walks past above. */
const scene = (behind: (x: number, y: number) => number, opacity: number, k: number) =>
  picture((x, y) => {
    if (Math.hypot(x - 100 - k, y - 60) < 20) return 200;
    return isInk(LINE, AT.x, AT.y, x, y) ? opacity * 235 + (1 - opacity) * behind(x, y) : behind(x, y);
  });

/** What is known at the last look, the line having been found at one of the looks. */
function watch(at: (k: number) => GreyPlane, pictures: number, foundAt: number, camera = 0): SeenText[] {
  const texts = new TextWatch();
  let seen: SeenText[] = [];
  for (let k = 0; k < pictures; k++) {
    texts.see(k, at(k), { x: camera, y: 0 });
    if (k % LOOK === 0) seen = texts.look(k === foundAt ? [INK] : null);
  }
  return seen;
}

describe("lines in the map of a detector", () => {
  const map = (at: (x: number, y: number) => number) =>
    linesInMap(
      Float32Array.from({ length: 64 * 32 }, (_, i) => at(i % 64, Math.floor(i / 64))),
      { width: 64, height: 32 },
    );
  const within = (box: Box, x: number, y: number) =>
    x >= box.x && x < box.x + box.width && y >= box.y && y < box.y + box.height;
  const line: Box = { x: 8, y: 10, width: 40, height: 4 };

  test("are grown to what the map shows shrunk, from the top, within it", () => {
    const low: Box = { ...line, x: 0, y: 26 };
    const found = map((x, y) => (within(line, x, y) || within(low, x, y) ? 0.9 : 0));
    expect(found.map(({ y }) => y < 16)).toEqual([true, false]);
    // 1.6 × 160 / 88 = 2.9
    expect(found[0]!.x).toBeCloseTo(5.1, 1);
    expect(found[0]!.height).toBeCloseTo(9.8, 1);
    expect(boxContains({ x: 0, y: 0, width: 64, height: 32 }, found[1]!)).toBe(true);
  });

  test("are neither specks nor faint", () => {
    expect(map((x, y) => (within({ ...line, width: 3 }, x, y) ? 0.9 : 0))).toEqual([]);
    expect(map((x, y) => (within(line, x, y) ? 0.4 : 0))).toEqual([]);
  });

  test("are one where they are broken between two words, and two where one is below the other", () => {
    expect(map((x, y) => (within(line, x, y) && x !== 27 ? 0.9 : 0))).toHaveLength(1);
    expect(map((x, y) => (within(line, x, y) && y !== 12 ? 0.9 : 0)).length).toBe(2);
  });
});

describe("a line of text", () => {
  test("lies over the picture where it stays while what is behind it moves", () => {
    const [text] = watch((k) => scene(ground(3 * k), 1, k), 31, 5, 3);
    expect(text).toMatchObject({ over: true });
    expect(text).not.toHaveProperty("since");
    expect(text).not.toHaveProperty("until");
  });

  test("is part of the picture where it moves with it, or stands like all else", () => {
    const moved = watch(
      (k) => picture((x, y) => (isInk(LINE, AT.x - 2 * k + 10, AT.y, x, y) ? 235 : wall(x + 2 * k, y))),
      31,
      5,
      2,
    );
    expect(moved.map(({ over }) => over)).toEqual([undefined]);
    expect(watch((k) => scene(wall, 1, k), 31, 5).map(({ over }) => over)).toEqual([undefined]);
  });

  test("comes up to the picture, through a fade as well, and lies over it then", () => {
    const [cut] = watch((k) => scene(wall, k >= 8 ? 1 : 0, k), 31, 15);
    expect(cut).toMatchObject({ since: 8, over: true });
    const [faded] = watch((k) => scene(wall, Math.max(0, Math.min(1, (k - 8) / 6)), k), 31, 20);
    expect(Math.abs(faded!.since! - 9)).toBeLessThanOrEqual(1);
    expect(faded!.over).toBe(true);
  });

  test("goes to the picture, and lies over it then", () => {
    const [text] = watch((k) => scene(wall, k < 17 ? 1 : 0, k), 41, 5);
    expect(text).toMatchObject({ until: 16, over: true });
  });

  test("is no sign that somebody stands before and leaves again", () => {
    const passed = (k: number) =>
      k >= 16 && k < 26
        ? picture((x, y) => (x > 40 && x < 220 && y > 70 ? 60 + 100 * texture(x + 5 * k, y, 5) : wall(x, y)))
        : scene(wall, 1, k);
    const [text] = watch(passed, 41, 5);
    expect(text).not.toHaveProperty("over");
    expect(text).not.toHaveProperty("until");
  });

  test("has not come up where a cut shows it", () => {
    const other = (x: number, y: number) => 190 - wall(x, y + 70);
    const [text] = watch((k) => (k < 8 ? scene(other, 0, k) : scene(wall, 1, k)), 31, 15);
    expect(text).toMatchObject({ since: 8 });
    expect(text).not.toHaveProperty("over");
  });

  test("is another when it is there again after a while", () => {
    const isThere = (k: number) => k < 17 || k >= 38;
    const seen = watch((k) => scene(wall, isThere(k) ? 1 : 0, k), 51, 5);
    expect(seen.map(({ since }) => since)).toEqual([38]);
    expect(seen[0]).toMatchObject({ over: true, id: 1 });
  });
});

describe("text is looked for", () => {
  const due = (looks: readonly GreyPlane[], cuts: readonly number[] = []) => {
    const when = new TextDue();
    return looks.map((luma, k) => when.see(luma, cuts.includes(k)));
  };
  const still = picture(wall);
  const titled = scene(wall, 1, -200);

  test("everywhere in the second picture after a cut, and no more where nothing changes", () => {
    const whole = { x: 0, y: 0, width: 320, height: 192 };
    expect(
      due(
        Array.from({ length: 8 }, () => still),
        [4],
      ),
    ).toEqual([null, whole, null, null, null, whole, null, null]);
  });

  test("around what is new and stays", () => {
    const found = due(Array.from({ length: 12 }, (_, k) => (k < 5 ? still : titled)));
    expect(found.map((part) => part !== null)).toEqual(Array.from({ length: 12 }, (_, k) => k === 1 || k === 7));
    expect(boxContains(found[7]!, INK)).toBe(true);
    expect(found[7]!.height).toBeLessThan(SIZE.height);
    for (const value of Object.values(found[7]!)) expect(value % 32).toBe(0);
  });
});

test("an edge that is weaker in one picture is not steady", () => {
  const step = (high: number) => edgesOf(picture((x) => (x > 160 ? high : 40)));
  const steady = steadyEdges([step(220), step(200)]);
  expect(steady.count).toBeGreaterThan(100);
  expect(steady.across.filter((edge) => edge !== 0)).toHaveLength(steady.count);
  expect(Math.max(...steady.across)).toBe(160);
  expect(steadyEdges([step(220), step(80)]).count).toBe(0);
  expect(steadyEdges([step(220), step(0)]).count).toBe(0);
});

describe("the texts of a shot", () => {
  const PICTURE = { width: 1280, height: 720 };
  const SHOT = { start: 100, end: 300 };
  const NAME: Box = { x: 100, y: 600, width: 400, height: 50 };
  const text = (id: number, box: Box, more: Partial<SeenText> = {}): SeenText => ({ id, box, ofPicture: 0.1, ...more });
  const looks = (...texts: SeenText[]): FrameDetections[] =>
    Array.from({ length: 22 }, (_, i) => ({ frame: 90 + 10 * i, looked: [], step: 2, detections: [], texts }));
  const spans = (...texts: SeenText[]) =>
    textTracks(looks(...texts), SHOT, PICTURE).map(({ start, boxes }) => [start, start + boxes.length]);

  test("last from their first frame to their last, as far as they lie in the shot", () => {
    const over = { over: true as const };
    expect(spans(text(1, NAME, { ...over, since: 140, until: 199 }))).toEqual([[140, 200]]);
    expect(spans(text(1, NAME, over))).toEqual([[100, 300]]);
    expect(spans(text(1, NAME, { ...over, since: 20, until: 90 }))).toEqual([]);
  });

  test("consist of lines near one another at the same time", () => {
    const over = { over: true as const, since: 120, until: 219 };
    const below: Box = { ...NAME, y: 655, height: 30 };
    const [track, ...others] = textTracks(looks(text(1, NAME, over), text(2, below, over)), SHOT, PICTURE);
    expect(others).toEqual([]);
    for (const box of [NAME, below]) expect(boxContains(track!.boxes[0]!, box)).toBe(true);
    expect(spans(text(1, NAME, over), text(2, below, { ...over, since: 230, until: 299 }))).toHaveLength(2);
    expect(spans(text(1, NAME, over), text(2, { ...NAME, y: 60 }, over))).toHaveLength(2);
    // The second line of a title need not be certain by itself.
    expect(spans(text(1, NAME, over), text(2, below, { ...over, over: undefined }))).toHaveLength(1);
  });

  test("may be signs where they stand throughout in the place of a name or a mark", () => {
    const maySign = (...texts: SeenText[]) =>
      textTracks(looks(...texts), SHOT, PICTURE).map(({ mayBeSign }) => mayBeSign);
    expect(maySign(text(1, NAME))).toEqual([true]);
    expect(maySign(text(1, { x: 1100, y: 30, width: 120, height: 40 }))).toEqual([true]);
    expect(maySign(text(1, NAME, { over: true }))).toEqual([undefined]);
    // In the middle of a wall they are.
    expect(maySign(text(1, scaleBox(NAME, 0.5)))).toEqual([]);
    expect(maySign(text(1, NAME, { since: 180 }))).toEqual([]);
  });

  test("are all there is on a card", () => {
    const middle: Box = { x: 400, y: 300, width: 500, height: 80 };
    expect(spans(text(1, middle, { ofPicture: 0.9 }))).toEqual([[100, 300]]);
    expect(spans(text(1, middle, { ofPicture: 0.4 }))).toEqual([]);
  });
});
