import { z } from "zod";

/** Pixels of a source, within the bounds of any picture. */
export const Pixels = z.number().min(-100_000).max(100_000);
export const Length = Pixels.positive();

/** A rectangle in source pixels as displayed: origin top left, x right, y down. */
export const Box = z.object({ x: Pixels, y: Pixels, width: Length, height: Length });
export type Box = z.infer<typeof Box>;

export interface Size {
  width: number;
  height: number;
}

/** The whole picture as a box. */
export const wholeOf = ({ width, height }: Size): Box => ({ x: 0, y: 0, width, height });

export interface Point {
  x: number;
  y: number;
}

export const boxCentre = (box: Box): Point => ({ x: box.x + box.width / 2, y: box.y + box.height / 2 });

export const boxArea = (box: Box): number => Math.max(0, box.width) * Math.max(0, box.height);

export const boxAround = (centre: Point, size: Size): Box => ({
  x: centre.x - size.width / 2,
  y: centre.y - size.height / 2,
  width: size.width,
  height: size.height,
});

/** The smallest box that contains all of at least one. */
export function boxUnion(boxes: readonly Box[]): Box {
  const x = Math.min(...boxes.map((box) => box.x));
  const y = Math.min(...boxes.map((box) => box.y));
  return {
    x,
    y,
    width: Math.max(...boxes.map((box) => box.x + box.width)) - x,
    height: Math.max(...boxes.map((box) => box.y + box.height)) - y,
  };
}

/** Area that two boxes share. */
export const intersectionArea = (a: Box, b: Box): number => boxArea(boxIntersection(a, b));

/** Intersection over union (Jaccard index), 0 to 1. */
export function boxIou(a: Box, b: Box): number {
  const shared = intersectionArea(a, b);
  const union = boxArea(a) + boxArea(b) - shared;
  return union > 0 ? shared / union : 0;
}

export const sameBox = (a: Box, b: Box): boolean =>
  a.x === b.x && a.y === b.y && a.width === b.width && a.height === b.height;

/** Whether `inner` lies inside `outer`, within a tolerance in pixels. */
export const boxContains = (outer: Box, inner: Box, tolerance = 0): boolean =>
  inner.x >= outer.x - tolerance &&
  inner.y >= outer.y - tolerance &&
  inner.x + inner.width <= outer.x + outer.width + tolerance &&
  inner.y + inner.height <= outer.y + outer.height + tolerance;

export const moveBox = (box: Box, { x, y }: Point): Box => ({ ...box, x: box.x + x, y: box.y + y });

/** The intersection of two boxes; width or height is 0 if it is empty. */
export function boxIntersection(a: Box, b: Box): Box {
  const x = Math.max(a.x, b.x);
  const y = Math.max(a.y, b.y);
  return {
    x,
    y,
    width: Math.max(0, Math.min(a.x + a.width, b.x + b.width) - x),
    height: Math.max(0, Math.min(a.y + a.height, b.y + b.height) - y),
  };
}

/** The part of a box inside a picture; width or height is 0 if it is empty. */
export function clipBox(box: Box, picture: Size): Box {
  const inside = boxIntersection(box, wholeOf(picture));
  return { ...inside, x: Math.min(picture.width, inside.x), y: Math.min(picture.height, inside.y) };
}

/** The part of a box inside a picture; null if less than a pixel of it is. */
export function visiblePart(box: Box, picture: Size): Box | null {
  const clipped = clipBox(box, picture);
  return clipped.width >= 1 && clipped.height >= 1 ? clipped : null;
}

/** A box moved by a share of the way from `from` to `to`. */
export const driftBox = (box: Box, from: Box, to: Box, share: number): Box => ({
  x: box.x + share * (to.x - from.x),
  y: box.y + share * (to.y - from.y),
  width: box.width + share * (to.width - from.width),
  height: box.height + share * (to.height - from.height),
});

/** Linear interpolation, t = 0 gives `a`. */
export const mixBoxes = (a: Box, b: Box, t: number): Box => ({
  x: a.x + (b.x - a.x) * t,
  y: a.y + (b.y - a.y) * t,
  width: a.width + (b.width - a.width) * t,
  height: a.height + (b.height - a.height) * t,
});

/** A box with a margin on all sides. */
export const grownBox = ({ x, y, width, height }: Box, by: number): Box => ({
  x: x - by,
  y: y - by,
  width: width + 2 * by,
  height: height + 2 * by,
});

export const scaleBox = (box: Box, factor: number): Box => ({
  x: box.x * factor,
  y: box.y * factor,
  width: box.width * factor,
  height: box.height * factor,
});

/** Maps a box as the boxes `from` and `to` map onto each other. */
export function mapBox({ x, y, width, height }: Box, from: Box, to: Box): Box {
  const [across, down] = [to.width / from.width, to.height / from.height];
  return {
    x: to.x + (x - from.x) * across,
    y: to.y + (y - from.y) * down,
    width: width * across,
    height: height * down,
  };
}
