import type { Point } from "~/core/geometry/box";

/**
 * The lane's geometry: the picture's own axis runs along one side of the canvas, time along the other. Under
 * the picture (axis x) time runs down; beside it (axis y) time runs to the right.
 */
export interface LaneGeometry {
  axis: "x" | "y";
  /** Start of the picture on the shared axis, and canvas pixels per source pixel. */
  origin: number;
  scale: number;
  pxPerFrame: number;
}

/** Canvas point of a source position at a frame, before scrolling. */
export function toPoint({ axis, origin, scale, pxPerFrame }: LaneGeometry, value: number, frame: number): Point {
  const along = origin + value * scale;
  const time = frame * pxPerFrame;
  return axis === "x" ? { x: along, y: time } : { x: time, y: along };
}

/** A source position at a frame. */
export interface LanePlace {
  value: number;
  frame: number;
}

/** The source position and frame of a canvas point. */
export function fromPoint({ axis, origin, scale, pxPerFrame }: LaneGeometry, point: Point): LanePlace {
  const along = axis === "x" ? point.x : point.y;
  const time = axis === "x" ? point.y : point.x;
  return { value: (along - origin) / scale, frame: Math.round(time / pxPerFrame) };
}

/** Share of the lane before the playhead. */
export const NOW_SHARE = 0.3;

/** Frames by which the drawn range moves: half a screen, so that it is not drawn again for every frame. */
const drawingStep = (roomPx: number, pxPerFrame: number): number => Math.max(1, roomPx / pxPerFrame / 2);

/** The middle of the drawn range for a frame on screen. */
export function drawnMiddle(frame: number, roomPx: number, pxPerFrame: number): number {
  const step = drawingStep(roomPx, pxPerFrame);
  return Math.round(frame / step) * step;
}

/** Frames to draw so that scrolling by a screen needs nothing new. */
export function framesAround(frame: number, roomPx: number, pxPerFrame: number): { start: number; end: number } {
  const screen = roomPx / pxPerFrame;
  const middle = drawnMiddle(frame, roomPx, pxPerFrame);
  return { start: Math.floor(middle - 1.5 * screen), end: Math.ceil(middle + 2 * screen) };
}
