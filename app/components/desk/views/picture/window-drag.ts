/** A drag of the crop window: where it may be, where it snaps, and how its limits feel. */
import type { Box, Point } from "~/core/geometry/box";
import { clampWindow, type CropWindow } from "~/core/geometry/crop-window";

export interface Snap {
  axis: "x" | "y";
  /** Centre of the window when snapped. */
  at: number;
}

/** Shares of the window at which a subject can stand. */
const STANDS = [1 / 2, 1 / 3, 2 / 3];
/** Pulled beyond its limit, a window gives by this share of the distance, up to a share of its size. */
const GIVE = 0.2;
const MOST_GIVE = 0.04;

/**
 * Snapping places of a window's centre: with the subject in its middle or on a third, where it was, and in the middle of
 * the picture.
 */
export function snapsOf(subject: Box | null, from: CropWindow, area: Box, aspect: number): Snap[] {
  const { height } = from;
  const lengths = { x: height * aspect, y: height };
  return (["x", "y"] as const).flatMap((axis) => {
    const extent = axis === "x" ? "width" : "height";
    const middle = subject && subject[axis] + subject[extent] / 2;
    const places = [from[axis], area[axis] + area[extent] / 2];
    if (middle !== null) places.push(...STANDS.map((share) => middle + (0.5 - share) * lengths[axis]));
    return places.map((at) => ({ axis, at }));
  });
}

export interface Dragged {
  /** The resulting window. */
  window: CropWindow;
  /** The drawn window: pulled beyond a limit, it gives a little. */
  drawn: CropWindow;
  isAtLimit: boolean;
  /** The snaps in effect. */
  snapped: readonly Snap[];
}

interface DragOf {
  from: CropWindow;
  by: Point;
  /** Whether it moves along one axis only, the one along which it has moved further. */
  isHeld: boolean;
  /** Empty to disable snapping. */
  snaps: readonly Snap[];
  /** Snapping distance, in pixels of the source. */
  reach: number;
  /** Where the window may be. */
  area: Box;
  aspect: number;
}

export function draggedWindow({ from, by, isHeld, snaps, reach, area, aspect }: DragOf): Dragged {
  const along = { ...by };
  if (isHeld) along[Math.abs(by.x) < Math.abs(by.y) ? "x" : "y"] = 0;
  const moved = { x: from.x + along.x, y: from.y + along.y, height: from.height };
  const snapped: Snap[] = [];
  for (const axis of ["x", "y"] as const) {
    const near = snaps
      .filter((snap) => snap.axis === axis && Math.abs(snap.at - moved[axis]) <= reach)
      .sort((a, b) => Math.abs(a.at - moved[axis]) - Math.abs(b.at - moved[axis]))[0];
    if (!near || along[axis] === 0) continue;
    moved[axis] = near.at;
    snapped.push(near);
  }
  const window = clampWindow(moved, area, aspect);
  const give = (axis: "x" | "y", length: number) => {
    const beyond = GIVE * (moved[axis] - window[axis]);
    return Math.sign(beyond) * Math.min(Math.abs(beyond), MOST_GIVE * length);
  };
  const [x, y] = [give("x", from.height * aspect), give("y", from.height)];
  return {
    window,
    drawn: { ...window, x: window.x + x, y: window.y + y },
    isAtLimit: Math.abs(moved.x - window.x) > reach || Math.abs(moved.y - window.y) > reach,
    snapped: snapped.filter(({ axis, at }) => Math.abs(window[axis] - at) < 1e-6),
  };
}
