import { boxAround, type Box, type Size } from "./box";

/** What a version shows of the source: its centre and height; the width follows from the version's shape. */
export interface CropWindow {
  x: number;
  y: number;
  height: number;
}

/** Width over height. */
export const aspectRatio = (size: Size): number => size.width / size.height;

/** Height, in source pixels, of the largest window of this aspect ratio that fits into the picture. */
export const largestWindowHeight = (picture: Size, aspect: number): number =>
  Math.min(picture.height, picture.width / aspect);

export const windowBox = (window: CropWindow, aspect: number): Box =>
  boxAround(window, { width: window.height * aspect, height: window.height });

/** The window in the middle of the picture, as large as it can be. */
export const centredWindow = (picture: Size, aspect: number): CropWindow => ({
  x: picture.width / 2,
  y: picture.height / 2,
  height: largestWindowHeight(picture, aspect),
});

/** Where a window's centre may be on one axis without leaving the picture. */
export function centreBounds(pictureLength: number, windowLength: number): [number, number] {
  const half = Math.min(windowLength, pictureLength) / 2;
  return [half, Math.max(half, pictureLength - half)];
}

const clamp = (value: number, [low, high]: [number, number]) => Math.min(high, Math.max(low, value));

/** The nearest window that lies wholly inside the picture. */
export function clampWindow(window: CropWindow, picture: Size, aspect: number): CropWindow {
  const height = Math.min(window.height, largestWindowHeight(picture, aspect));
  return {
    x: clamp(window.x, centreBounds(picture.width, height * aspect)),
    y: clamp(window.y, centreBounds(picture.height, height)),
    height,
  };
}
