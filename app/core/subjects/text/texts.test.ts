import { describe, expect, test } from "@jest/globals";
import { isInk, lineSize } from "../../../../tests/support/letters";
import { texture } from "../../../../tests/support/yuv-picture";
import { type Box, boxContains } from "../../geometry/box";
import type { FrameDetections } from "../detecting/detection";
import { STEADY_PICTURES, TextFinder } from "./find-texts";
import type { GreyPlane } from "../../image/grey-plane";
import { edgesOf, steadyEdges } from "./steady-edges";
import { textBlocks } from "./text-lines";
import { textTracks } from "./text-tracks";

const SIZE = { width: 320, height: 180 };
const LINE = "HELLO NATO TALE";
const AT = { x: 60, y: 120 };
const INK: Box = { ...AT, ...lineSize(LINE), height: 14 };

function picture(luma: (x: number, y: number) => number): GreyPlane {
  const samples = new Uint8Array(SIZE.width * SIZE.height);
  for (let i = 0; i < samples.length; i++) samples[i] = luma(i % SIZE.width, Math.floor(i / SIZE.width));
  return { ...SIZE, samples };
}
const ground = (shift: number) => (x: number, y: number) => 110 + 150 * texture(x + shift, y, 6);
/** A line of letters over a ground, or moved along with it. */
const titled = (shift: number, withGround = 0) =>
  picture((x, y) => (isInk(LINE, AT.x - withGround * shift, AT.y, x, y) ? 235 : ground(shift)(x, y)));
/** What is found after so many pictures, each moved on by some pixels. */
function seen(at: (shift: number) => GreyPlane, shift: number, cameraMoves = shift !== 0): Box[] {
  const finder = new TextFinder();
  let found: Box[] = [];
  for (let k = 0; k < STEADY_PICTURES; k++) found = finder.see(at(k * shift), cameraMoves).texts;
  return found;
}

/** A slanted sleeve with stripes so fine that they come out unevenly. */
function sleeve(x: number, y: number): number {
  const [u, v] = [x - 160, y - 90];
  const [along, across] = [u + 0.15 * v, v - 0.15 * u];
  if (Math.abs(across) >= 3 || Math.abs(along) >= 45) return 110 + 20 * texture(x, y);
  return (along / 2.7 + 100) % 1 < 0.5 ? 230 : 40;
}

describe("lines of text", () => {
  const blocks = (luma: (x: number, y: number) => number) => {
    const plane = picture(luma);
    return textBlocks(edgesOf(plane), plane);
  };

  test("are found whole, on an even ground", () => {
    const [block, ...others] = blocks((x, y) => (isInk(LINE, AT.x, AT.y, x, y) ? 230 : 40));
    expect(others).toEqual([]);
    expect(boxContains(block!, { ...INK, width: INK.width - 4 }, 3)).toBe(true);
    expect(block!.height).toBeLessThan(20);
  });

  test("are no stripes, no texture, and no edge of something", () => {
    expect(blocks((x, y) => (y > 80 && y < 100 && Math.floor(x / 4) % 2 ? 220 : 40))).toEqual([]);
    expect(blocks(ground(0))).toEqual([]);
    expect(blocks(sleeve)).toEqual([]);
    expect(blocks((x) => (x > 160 ? 220 : 40))).toEqual([]);
  });
});

describe("text over a film", () => {
  test("stays while what is behind it moves", () => {
    const [box, ...others] = seen((shift) => titled(shift), 7);
    expect(others).toEqual([]);
    expect(boxContains(box!, { ...INK, width: INK.width - 4 }, 6)).toBe(true);
  });

  test("is not what moves with the picture, nor what is part of a still one with something going on", () => {
    expect(seen((shift) => titled(shift, 1), 7)).toEqual([]);
    const somebodyMoves = (shift: number) =>
      picture((x, y) =>
        Math.hypot(x - 100 - shift, y - 60) < 40 ? 200 : isInk(LINE, AT.x, AT.y, x, y) ? 235 : ground(0)(x, y),
      );
    expect(seen(somebodyMoves, 9, false)).toEqual([]);
  });

  test("comes up in a picture that stands, and is told for as long as it is there", () => {
    const wall = (x: number, y: number) => 110 + 40 * texture(x, y, 9);
    const scene = (isThere: boolean, k: number) =>
      picture((x, y) =>
        Math.hypot(x - 100 - k, y - 60) < 20 ? 200 : isThere && isInk(LINE, AT.x, AT.y, x, y) ? 235 : wall(x, y),
      );
    const finder = new TextFinder();
    const found = Array.from({ length: 16 }, (_, k) => finder.see(scene(k >= 4 && k < 12, k), false).texts.length);
    expect(found).toEqual([0, 0, 0, 0, 0, 0, 0, 1, 1, 1, 1, 1, 0, 0, 0, 0]);
    // After a cut to a scene with a sign in it nothing has come up.
    const cut = new TextFinder();
    const other = (k: number) =>
      picture((x, y) =>
        Math.hypot(x - 200 - 3 * k, y - 30) < 20 ? 250 : isInk(LINE, AT.x, AT.y, x, y) ? 235 : 190 - wall(x, y + 70),
      );
    const after = Array.from({ length: 12 }, (_, k) => cut.see(k < 4 ? scene(false, k) : other(k), false).texts.length);
    expect(after.reduce((a, b) => a + b, 0)).toBe(0);
  });

  test("goes while all else stands, and is text beyond doubt then", () => {
    const wall = (x: number, y: number) => 110 + 40 * texture(x, y, 9);
    const scene = (isThere: boolean, k: number) =>
      picture((x, y) =>
        Math.hypot(x - 100 - k, y - 60) < 20 ? 200 : isThere && isInk(LINE, AT.x, AT.y, x, y) ? 235 : wall(x, y),
      );
    const finder = new TextFinder();
    const seen = Array.from({ length: 12 }, (_, k) => finder.see(scene(k < 7, k), false));
    // While it is there it may as well be a sign on the wall.
    expect(seen.map(({ texts }) => texts.length)).toEqual(Array.from({ length: 12 }, () => 0));
    expect(seen.map(({ letters }) => letters.length)).toEqual([0, 0, 0, 1, 1, 1, 1, 0, 0, 0, 0, 0]);
    expect(seen.flatMap(({ overlaid }, k) => (overlaid.length > 0 ? [k] : []))).toEqual([7, 8, 9]);
  });

  test("comes up beside a sign that was there before", () => {
    const wall = (x: number, y: number) => 110 + 40 * texture(x, y, 9);
    const scene = (k: number) =>
      picture((x, y) =>
        Math.hypot(x - 60 - 17 * k, y - 70) < 7
          ? 200
          : isInk(LINE, 120, 6, x, y) || (k >= 5 && isInk(LINE, AT.x, AT.y, x, y))
            ? 235
            : wall(x, y),
      );
    const finder = new TextFinder();
    const seen = Array.from({ length: 12 }, (_, k) => finder.see(scene(k), false)).at(-1)!;
    expect(seen.texts.map(({ y }) => Math.abs(y - AT.y) < 8)).toEqual([true]);
    expect(seen.letters).toHaveLength(1);
  });

  test("is no sign that somebody stands before and leaves again", () => {
    const wall = (x: number, y: number) => 110 + 40 * texture(x, y, 9);
    const passed = (k: number) =>
      picture((x, y) =>
        k >= 6 && k < 9 && x > 40 && x < 220 && y > 70
          ? 60 + 100 * texture(x + 5 * k, y, 5)
          : isInk(LINE, AT.x, AT.y, x, y)
            ? 235
            : wall(x, y),
      );
    const finder = new TextFinder();
    const seen = Array.from({ length: 16 }, (_, k) => finder.see(passed(k), false));
    expect(seen.flatMap(({ overlaid }) => overlaid)).toEqual([]);
    expect(seen.at(-1)!.letters.length + seen.at(-1)!.texts.length).toBe(1);
  });

  test("is all there is on a still card", () => {
    expect(seen(() => picture((x, y) => (isInk(LINE, AT.x, AT.y, x, y) ? 230 : 40)), 0)).toHaveLength(1);
  });

  test("covers so much of a thing, whether it was put over the picture or moves with it", () => {
    const finder = new TextFinder();
    for (const shift of [0, 7])
      finder.see(
        picture((x, y) => (isInk(LINE, AT.x - shift, AT.y, x, y) ? 230 : 40)),
        true,
      );
    const board = { x: INK.x - 7, y: INK.y - 4, width: INK.width, height: INK.height + 8 };
    expect(finder.written(board)).toBeGreaterThan(0.4);
    expect(finder.written({ x: 20, y: 20, width: 100, height: 60 })).toBe(0);
  });

  test("is not told before it has been there for a while", () => {
    const finder = new TextFinder();
    for (let k = 0; k < STEADY_PICTURES - 1; k++) expect(finder.see(titled(7 * k), true).texts).toEqual([]);
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
});

describe("areas of text in a shot", () => {
  const PICTURE = { width: 1280, height: 720 };
  const box = (x: number): Box => ({ x, y: 600, width: 400, height: 50 });
  const look = (frame: number, texts: Box[]): FrameDetections => ({
    frame,
    looked: [],
    step: 2,
    detections: [],
    texts,
  });
  const SHOT = { start: 0, end: 200 };
  const looks = (at: (frame: number) => Box[]) => Array.from({ length: 20 }, (_, i) => look(10 * i, at(10 * i)));

  test("begin with the first picture that it had to be steady in, and end where it is not found any more", () => {
    const [track, ...others] = textTracks(
      looks((frame) => (frame >= 80 && frame <= 120 ? [box(100)] : [])),
      SHOT,
      PICTURE,
    );
    expect(others).toEqual([]);
    expect(track).toMatchObject({ kind: "text", start: 50 });
    expect(track!.start + track!.boxes.length).toBe(121);
    expect(boxContains(track!.boxes[0]!, box(100))).toBe(true);
  });

  test("go on where it was overlooked, hold all of what was found, and lie apart where it does", () => {
    const found = (frame: number) => (frame === 90 ? [] : [box(100), box(frame < 100 ? 760 : 780)]);
    const tracks = textTracks(looks(found), SHOT, PICTURE);
    expect(tracks).toHaveLength(2);
    for (const { start, boxes } of tracks) expect([start, boxes.length]).toEqual([0, 200]);
    expect(boxContains(tracks[1]!.boxes[0]!, { x: 760, y: 600, width: 420, height: 50 })).toBe(true);
  });

  test("reach as far as their letters do, where these were put over the picture beyond doubt", () => {
    const letters = (frame: number): FrameDetections => ({
      ...look(frame, []),
      letters: frame >= 30 && frame <= 120 ? [box(100)] : [],
    });
    const goes = Array.from({ length: 20 }, (_, i) => ({
      ...letters(10 * i),
      overlaid: i === 13 || i === 14 ? [box(100)] : [],
    }));
    const [track, ...others] = textTracks(goes, SHOT, PICTURE);
    expect(others).toEqual([]);
    expect([track!.start, track!.start + track!.boxes.length]).toEqual([0, 121]);
    // What was hidden for a while and came back did not go.
    const hidden = goes.map((seen, i) => (i === 15 ? { ...seen, letters: [box(100)] } : seen));
    expect(textTracks(hidden, SHOT, PICTURE)).toEqual([]);
    // Over a cut it stays, and is told in the first looks after it.
    const logo = Array.from({ length: 20 }, (_, i) => ({
      ...look(10 * i, i < 3 ? [box(100)] : []),
      letters: i < 3 ? [] : [box(100)],
      overlaid: i < 3 ? [box(100)] : [],
    }));
    expect(textTracks(logo, SHOT, PICTURE).map(({ start, boxes }) => [start, boxes.length])).toEqual([[0, 200]]);
  });

  test("are none where it was found once in a long shot", () => {
    expect(
      textTracks(
        looks((frame) => (frame === 100 ? [box(100)] : [])),
        SHOT,
        PICTURE,
      ),
    ).toEqual([]);
  });
});
