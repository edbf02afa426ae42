import { clamped } from "../numbers/clamped";
import { boxAround, type Box, boxCentre, type Size } from "./box";

/** What a version shows of the source: centre and height; the width follows from the version's aspect ratio. */
export interface CropWindow {
  x: number;
  y: number;
  height: number;
}

/** Width over height. */
export const aspectRatio = (size: Size): number => size.width / size.height;

/** Height, in source pixels, of the largest window of this aspect ratio inside a picture or a part of it. */
export const largestWindowHeight = (picture: Size, aspect: number): number =>
  Math.min(picture.height, picture.width / aspect);

/** Size of the largest window inside a picture or a part of it, for a version of some size. */
export function largestWindow(picture: Size, target: Size): Size {
  const height = largestWindowHeight(picture, aspectRatio(target));
  return { width: height * aspectRatio(target), height };
}

export const windowBox = (window: CropWindow, aspect: number): Box =>
  boxAround(window, { width: window.height * aspect, height: window.height });

/** The largest window in the centre of an area. */
export const centredWindow = (area: Box, aspect: number): CropWindow => ({
  ...boxCentre(area),
  height: largestWindowHeight(area, aspect),
});

/** Bounds of a window's centre on one axis, inside a span from 0 of some length. */
export function centreBounds(length: number, windowLength: number): [number, number] {
  const half = Math.min(windowLength, length) / 2;
  return [half, Math.max(half, length - half)];
}

const clamp = (value: number, [low, high]: [number, number]) => clamped(value, low, high);

/** The nearest window inside an area of the picture. */
export function clampWindow(window: CropWindow, area: Box, aspect: number): CropWindow {
  const height = Math.min(window.height, largestWindowHeight(area, aspect));
  return {
    x: area.x + clamp(window.x - area.x, centreBounds(area.width, height * aspect)),
    y: area.y + clamp(window.y - area.y, centreBounds(area.height, height)),
    height,
  };
}
