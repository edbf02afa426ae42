import { centredWindow, centreBounds, type CropWindow, largestWindowHeight } from "~/core/geometry/crop-window";
import type { Size } from "~/core/geometry/box";
import { type DeskShot, shotAt } from "./desk-types";

type FramedShots = readonly Pick<DeskShot, "start" | "end" | "handKeys" | "framed">[];

/** With less room than this, in pixels of the picture, a window cannot be seen to move. */
const NO_ROOM = 0.5;

/** Where the window is at a frame; in the middle of the picture while no path has been laid. */
export function windowOfShots(shots: FramedShots, frame: number, picture: Size, aspect: number): CropWindow {
  const shot = shotAt(shots, frame);
  // A key that has just been placed holds at once, before the path around it is laid again.
  const hand = shot?.handKeys.find((key) => key.frame === frame);
  if (hand) return hand;
  const windows = shot?.framed?.windows;
  return windows?.[Math.min(windows.length - 1, Math.max(0, frame - shot!.start))] ?? centredWindow(picture, aspect);
}

/** The axes on which a window of this shape can move anywhere in the film. */
export function freeAxes(shots: FramedShots, picture: Size, aspect: number): { x: boolean; y: boolean } {
  const heights = shots.flatMap(({ framed }) => framed?.keys.map((key) => key.height) ?? []);
  const height = Math.min(largestWindowHeight(picture, aspect), ...heights);
  const moves = (length: number, window: number) => {
    const [low, high] = centreBounds(length, window);
    return high - low > NO_ROOM;
  };
  return { x: moves(picture.width, height * aspect), y: moves(picture.height, height) };
}
