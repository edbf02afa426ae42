import { clamped } from "../numbers/clamped";
import type { Box, Point, Size } from "./box";

/** The sides of a box that are moved: -1 for left or top, 1 for right or foot, 0 for neither. */
export interface Sides {
  x: -1 | 0 | 1;
  y: -1 | 0 | 1;
}

/** Start and length of a box on one axis after a side was moved, or, with 0, the whole box. */
function moved(from: number, length: number, side: -1 | 0 | 1, by: number, room: number, least: number) {
  const end = from + length;
  if (side < 0) {
    const start = clamped(from + by, 0, end - least);
    return [start, end - start] as const;
  }
  if (side > 0) return [from, Math.max(least, Math.min(room, end + by) - from)] as const;
  return [from, length] as const;
}

/** A box with some sides moved, inside the picture, with no side shorter than `least`. */
export function resizeBox(box: Box, { x, y }: Sides, by: Point, picture: Size, least: number): Box {
  const [left, width] = moved(box.x, box.width, x, by.x, picture.width, least);
  const [top, height] = moved(box.y, box.height, y, by.y, picture.height, least);
  return { x: left, y: top, width, height };
}

/** A box moved as a whole, within the picture. */
export const shiftBox = (box: Box, by: Point, picture: Size): Box => ({
  ...box,
  x: clamped(box.x + by.x, 0, picture.width - box.width),
  y: clamped(box.y + by.y, 0, picture.height - box.height),
});
