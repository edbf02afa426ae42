import { clamped } from "~/core/numbers/clamped";
import { type Composition, compose } from "~/core/composition/composition";
import { FILL, layOut, paneBox } from "~/core/composition/layout";
import { USUAL_FRAMING } from "~/core/path/framing-settings";
import {
  aspectRatio,
  centredWindow,
  centreBounds,
  clampWindow,
  type CropWindow,
  largestWindowHeight,
  windowBox,
} from "~/core/geometry/crop-window";
import { type Box, type Size, wholeOf } from "~/core/geometry/box";
import { activeArea } from "~/core/shots/shot";
import { type DeskShot, shotAt } from "./desk-types";

type FramedShots = readonly Pick<DeskShot, "start" | "end" | "active" | "handKeys" | "framed" | "settings" | "pane">[];

/** Room in pixels of the picture below which no movement of the window is visible. */
const NO_ROOM = 0.5;

/** The part of the picture in which the window may be at a frame. */
export function areaAt(shots: FramedShots, frame: number, picture: Size): Box {
  const shot = shotAt(shots, frame);
  return shot ? activeArea(shot, picture) : wholeOf(picture);
}

/** Aspect ratio of a shot's window, width over height: that of its selected pane. */
export const windowAspect = (
  shot: Pick<DeskShot, "active" | "settings" | "pane"> | undefined,
  picture: Size,
  version: Size,
): number => aspectRatio(paneBox(shot?.settings.layout ?? FILL, shot?.active ?? picture, version, shot?.pane));

/** Where the window is being steered, at a frame; null where it is not. */
export type LedAt = (frame: number) => CropWindow | null;
export const NOT_LED: LedAt = () => null;

/** The window at a frame, from which moves begin; centred while no path has been laid. */
export function windowOfShots(
  shots: FramedShots,
  frame: number,
  picture: Size,
  version: Size,
  ledAt = NOT_LED,
): CropWindow {
  const led = ledAt(frame);
  if (led) return led;
  const shot = shotAt(shots, frame);
  const aspect = windowAspect(shot, picture, version);
  const area = areaAt(shots, frame, picture);
  // A newly placed key holds at once, before the path around it is laid again.
  const hand = shot?.handKeys.find((key) => key.frame === frame);
  if (hand) return clampWindow(hand, area, aspect);
  const windows = shot?.framed?.windows;
  return windows?.[clamped(frame - shot!.start, 0, windows.length - 1)] ?? centredWindow(area, aspect);
}

/** What the version shows at a frame. */
export function shownOfShots(
  shots: readonly (FramedShots[number] & Pick<DeskShot, "shown">)[],
  frame: number,
  picture: Size,
  size: Size,
  ledAt = NOT_LED,
): Composition {
  const shot = shotAt(shots, frame);
  const isPlaced = ledAt(frame) !== null || shot?.handKeys.some((key) => key.frame === frame);
  const known = shot?.shown?.(frame);
  if (known && !isPlaced) return known;
  const area = areaAt(shots, frame, picture);
  const window = windowOfShots(shots, frame, picture, size, ledAt);
  const selected = shot?.pane ?? 0;
  if (known?.panes[selected]) {
    const source = windowBox(window, windowAspect(shot, picture, size));
    return { ...known, panes: known.panes.map((pane, i) => (i === selected ? { ...pane, source } : pane)) };
  }
  const laidOut = layOut(shot?.settings ?? USUAL_FRAMING, area, size);
  const windows = laidOut.panes.map((pane, i) => (i === selected ? window : centredWindow(area, aspectRatio(pane))));
  return compose(windows, laidOut, size);
}

/** The axes on which a version's window can move somewhere in the film. */
export function freeAxes(shots: FramedShots, picture: Size, version: Size): { x: boolean; y: boolean } {
  const rooms = shots.map((shot) => {
    const { active, framed } = shot;
    const area = active ?? picture;
    const aspect = windowAspect(shot, picture, version);
    const heights = framed?.keys.map((key) => key.height) ?? [];
    return { area, aspect, height: Math.min(largestWindowHeight(area, aspect), ...heights) };
  });
  if (rooms.length === 0) {
    const aspect = aspectRatio(version);
    rooms.push({ area: picture, aspect, height: largestWindowHeight(picture, aspect) });
  }
  const moves = (length: number, window: number) => {
    const [low, high] = centreBounds(length, window);
    return high - low > NO_ROOM;
  };
  return {
    x: rooms.some(({ area, aspect, height }) => moves(area.width, height * aspect)),
    y: rooms.some(({ area, height }) => moves(area.height, height)),
  };
}

/** A box on whole pixels. */
export function wholePixels(box: Box): Box {
  const [x, y] = [Math.ceil(box.x), Math.ceil(box.y)];
  return { x, y, width: Math.floor(box.x + box.width) - x, height: Math.floor(box.y + box.height) - y };
}
