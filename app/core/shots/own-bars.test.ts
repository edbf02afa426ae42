import { describe, expect, test } from "@jest/globals";
import { type Box, wholeOf } from "../geometry/box";
import { seeded } from "../../../demo/film/random";
import { activeAreaOf, edgeProfile } from "./own-bars";

const SIZE = { width: 320, height: 180 };
const LETTERBOX: Box = { x: 0, y: 23, width: 320, height: 134 };

type Pixel = (x: number, y: number, frame: number) => number;

/** Six frames in which an area shows something, with noise, and the rest is of one level. */
function frames(area: Box, picture: Pixel, bar: Pixel = () => 16) {
  const random = seeded(3);
  return Array.from({ length: 6 }, (_, frame) => {
    const luma = new Uint8Array(SIZE.width * SIZE.height);
    for (let y = 0, at = 0; y < SIZE.height; y++) {
      for (let x = 0; x < SIZE.width; x++, at++) {
        const inside = x >= area.x && x < area.x + area.width && y >= area.y && y < area.y + area.height;
        luma[at] = (inside ? picture(x, y, frame) : bar(x, y, frame)) + Math.round(2 * random());
      }
    }
    return edgeProfile(luma, SIZE);
  });
}

/** Patches of light and dark that move. */
const scene: Pixel = (x, y, frame) => 90 + 60 * Math.sin(x / 17 + frame) + 40 * Math.cos(y / 11 - frame);

const found = (...of: Parameters<typeof frames>) => activeAreaOf(frames(...of), SIZE);
/** An area with the guard of two pixels inside its bars. */
const guarded = ({ x, y, width, height }: Box) => {
  const [left, top] = [x && x + 2, y && y + 2];
  const [right, bottom] = [x + width, y + height];
  const to = (end: number, most: number) => (end === most ? end : end - 2);
  return { x: left, y: top, width: to(right, SIZE.width) - left, height: to(bottom, SIZE.height) - top };
};

describe("a film's own bars", () => {
  test.each<[string, Box]>([
    ["letterbox", LETTERBOX],
    ["pillarbox", { x: 109, y: 0, width: 102, height: 180 }],
    ["on all sides", { x: 40, y: 23, width: 240, height: 134 }],
    ["odd and not quite equal", { x: 0, y: 21, width: 320, height: 132 }],
    ["a dark line at one edge", { x: 3, y: 0, width: 317, height: 180 }],
  ])("%s", (_name, area) => {
    expect(found(area, scene)).toEqual(guarded(area));
  });

  test("grey and white ones as well", () => {
    for (const level of [110, 235]) expect(found(LETTERBOX, scene, () => level)).toEqual(guarded(LETTERBOX));
  });

  test("with a logo or a subtitle in them", () => {
    const logo: Pixel = (x, y) => (x > 20 && x < 60 && y > 6 && y < 16 ? 200 : 16);
    const subtitle: Pixel = (x, y, frame) =>
      frame % 2 && x > 90 && x < 230 && y > 162 && y < 174 && (x >> 2) % 2 ? 220 : 16;
    expect(found(LETTERBOX, scene, logo)).toEqual(guarded(LETTERBOX));
    expect(found(LETTERBOX, scene, subtitle)).toEqual(guarded(LETTERBOX));
  });

  test("with a soft edge, which is left out with them", () => {
    const soft: Pixel = (x, y, frame) =>
      y === LETTERBOX.y || y === LETTERBOX.y + LETTERBOX.height - 1 ? 28 : scene(x, y, frame);
    expect(found(LETTERBOX, soft)).toEqual({ x: 0, y: 26, width: 320, height: 128 });
  });
});

describe("what are no bars", () => {
  const whole = wholeOf(SIZE);

  test("a picture that fills the frame", () => {
    expect(found(whole, scene)).toBeNull();
  });

  test("dark scenes whose ends are not straight", () => {
    const hillsAtNight: Pixel = (x, y) => (y > 40 + 18 * Math.sin(x / 23) && y < 150 + 9 * Math.cos(x / 31) ? 60 : 16);
    expect(found(whole, hillsAtNight)).toBeNull();
    const lamp: Pixel = (x, y, frame) => (Math.hypot(x - 100 - 9 * frame, y - 80) < 20 ? 200 : 16);
    expect(found(whole, lamp)).toBeNull();
  });

  test("a title on black, and nothing at all", () => {
    const title: Pixel = (x, y) => (x > 30 && x < 290 && y > 80 && y < 100 && (x >> 3) % 3 ? 230 : 16);
    expect(found(whole, title)).toBeNull();
    expect(found(whole, () => 16)).toBeNull();
    expect(activeAreaOf([], SIZE)).toBeNull();
  });

  test("something dark along one side", () => {
    const desk: Pixel = (x, y, frame) => (y > 150 ? 16 : scene(x, y, frame));
    expect(found(whole, desk)).toBeNull();
  });
});
