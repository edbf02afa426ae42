import { clamped } from "../numbers/clamped";
import type { Box, Point, Size } from "./box";

/** Which sides of a box are moved: -1 for its left or top, 1 for its right or foot, 0 for neither. */
export interface Sides {
  x: -1 | 0 | 1;
  y: -1 | 0 | 1;
}

/** Where one axis of a box begins and ends when one of its sides, or with 0 all of it, is moved. */
function moved(from: number, length: number, side: -1 | 0 | 1, by: number, room: number, least: number) {
  const end = from + length;
  if (side < 0) {
    const start = clamped(from + by, 0, end - least);
    return [start, end - start] as const;
  }
  if (side > 0) return [from, Math.max(least, Math.min(room, end + by) - from)] as const;
  return [from, length] as const;
}

/** A box of which some sides were moved; it stays inside the picture, and no side is shorter than `least`. */
export function resizeBox(box: Box, { x, y }: Sides, by: Point, picture: Size, least: number): Box {
  const [left, width] = moved(box.x, box.width, x, by.x, picture.width, least);
  const [top, height] = moved(box.y, box.height, y, by.y, picture.height, least);
  return { x: left, y: top, width, height };
}

/** A box moved as a whole, as far as the picture goes. */
export const shiftBox = (box: Box, by: Point, picture: Size): Box => ({
  ...box,
  x: clamped(box.x + by.x, 0, picture.width - box.width),
  y: clamped(box.y + by.y, 0, picture.height - box.height),
});
