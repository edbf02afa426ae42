import { type Composition, fill } from "~/core/composition/composition";
import {
  aspectRatio,
  centredWindow,
  centreBounds,
  clampWindow,
  type CropWindow,
  largestWindowHeight,
} from "~/core/geometry/crop-window";
import { type Box, type Size, wholeOf } from "~/core/geometry/box";
import { activeArea } from "~/core/shots/shot";
import { type DeskShot, shotAt } from "../state/desk-types";

type FramedShots = readonly Pick<DeskShot, "start" | "end" | "active" | "handKeys" | "framed">[];

/** With less room than this, in pixels of the picture, a window cannot be seen to move. */
const NO_ROOM = 0.5;

/** The part of the picture in which the window may be at a frame. */
export function areaAt(shots: FramedShots, frame: number, picture: Size): Box {
  const shot = shotAt(shots, frame);
  return shot ? activeArea(shot, picture) : wholeOf(picture);
}

/** Where the window is at a frame, for whoever moves it; in the middle of the picture while no path has been laid. */
export function windowOfShots(shots: FramedShots, frame: number, picture: Size, aspect: number): CropWindow {
  const shot = shotAt(shots, frame);
  const area = areaAt(shots, frame, picture);
  // A key that has just been placed holds at once, before the path around it is laid again.
  const hand = shot?.handKeys.find((key) => key.frame === frame);
  if (hand) return clampWindow(hand, area, aspect);
  const windows = shot?.framed?.windows;
  return windows?.[Math.min(windows.length - 1, Math.max(0, frame - shot!.start))] ?? centredWindow(area, aspect);
}

/** What the version shows at a frame. */
export function shownOfShots(
  shots: readonly (FramedShots[number] & Pick<DeskShot, "shown">)[],
  frame: number,
  picture: Size,
  size: Size,
): Composition {
  const shot = shotAt(shots, frame);
  const isPlaced = shot?.handKeys.some((key) => key.frame === frame);
  if (shot?.shown && !isPlaced) return shot.shown(frame);
  return fill(windowOfShots(shots, frame, picture, aspectRatio(size)), size);
}

/** The axes on which a window of this shape can move anywhere in the film. */
export function freeAxes(shots: FramedShots, picture: Size, aspect: number): { x: boolean; y: boolean } {
  const rooms = shots.map(({ active, framed }) => {
    const area = active ?? picture;
    const heights = framed?.keys.map((key) => key.height) ?? [];
    return { area, height: Math.min(largestWindowHeight(area, aspect), ...heights) };
  });
  if (rooms.length === 0) rooms.push({ area: picture, height: largestWindowHeight(picture, aspect) });
  const moves = (length: number, window: number) => {
    const [low, high] = centreBounds(length, window);
    return high - low > NO_ROOM;
  };
  return {
    x: rooms.some(({ area, height }) => moves(area.width, height * aspect)),
    y: rooms.some(({ area, height }) => moves(area.height, height)),
  };
}
