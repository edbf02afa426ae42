import { describe, expect, test } from "@jest/globals";
import { framingOf } from "../../../tests/support/shot-framing";
import { type Box, boxContains } from "../geometry/box";
import { aspectRatio, windowBox } from "../geometry/crop-window";
import type { Track } from "../subjects/tracking/track";
import type { ShotFraming } from "./shot-framing";
import { frameShot } from "./solve-version";

const PICTURE = { width: 1920, height: 1080 };
const SQUARE = { width: 1080, height: 1080 };
const LEFT = { x: 0, y: 0, width: 960, height: 1080 };
const RIGHT = { x: 960, y: 0, width: 960, height: 1080 };

const trackOf = (id: string, kind: Track["kind"], box: Box): Track => ({
  id,
  kind,
  start: 0,
  confidence: 0.9,
  boxes: Array.from({ length: 30 }, () => box),
});
const tiles = [trackOf("left", "tile", LEFT), trackOf("right", "tile", RIGHT)];
const talker = trackOf("talker", "face", { x: 1000, y: 300, width: 150, height: 200 });

function windowsOf(change: Partial<ShotFraming>): Box[] {
  const shot = framingOf({ start: 0, end: 30 }, change);
  const { windows } = frameShot(shot, PICTURE, SQUARE, { num: 25, den: 1 });
  return windows.map((window) => windowBox(window, aspectRatio(SQUARE)));
}
const areWithin = (windows: readonly Box[], area: Box) => windows.every((window) => boxContains(area, window, 1e-6));

describe("in a picture that is made of several, the window", () => {
  test("stays in the tile of whom it follows, though it would reach over the seam", () => {
    expect(areWithin(windowsOf({ tracks: [talker] }), RIGHT)).toBe(false);
    expect(areWithin(windowsOf({ tracks: [talker, ...tiles] }), RIGHT)).toBe(true);
  });

  test("stays in a tile that is chosen, and in one where nothing is followed", () => {
    const chosen = windowsOf({ tracks: [talker, ...tiles], rule: { kind: "track", trackId: "left" } });
    expect(areWithin(chosen, LEFT)).toBe(true);
    expect(areWithin(windowsOf({ tracks: tiles, rule: { kind: "none" } }), LEFT)).toBe(true);
  });

  test("goes where the editor puts it", () => {
    const handKeys = [{ pane: 0, frame: 5, x: 900, y: 540, height: 1080, easing: null }];
    expect(windowsOf({ tracks: [talker, ...tiles], handKeys })[5]).toMatchObject({ x: 360, width: 1080 });
  });

  test("holds two who are followed together across the seam", () => {
    const other = trackOf("other", "face", { x: 780, y: 300, width: 150, height: 200 });
    const windows = windowsOf({ tracks: [talker, other, ...tiles], rule: { kind: "both" } });
    expect(areWithin(windows, LEFT) || areWithin(windows, RIGHT)).toBe(false);
  });
});
