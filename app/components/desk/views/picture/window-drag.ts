/** What a drag of the crop window comes to: where it may be, what it snaps to, and how its limits are felt. */
import type { Box, Point } from "~/core/geometry/box";
import { clampWindow, type CropWindow } from "~/core/geometry/crop-window";

export interface Snap {
  axis: "x" | "y";
  /** Where the window's centre comes to rest. */
  at: number;
}

/** Shares of the window at which a subject may stand. */
const STANDS = [1 / 2, 1 / 3, 2 / 3];
/** A window that is pulled beyond its limit gives by this share of the way, and by no more than so much of itself. */
const GIVE = 0.2;
const MOST_GIVE = 0.04;

/**
 * Where a window's centre may come to rest: with the subject in its middle or at a third of it, where it was, and in the
 * middle of the picture.
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
  /** What it comes to. */
  window: CropWindow;
  /** What is drawn: pulled beyond a limit, the window gives a little. */
  drawn: CropWindow;
  isAtLimit: boolean;
  /** What it has snapped to. */
  snapped: readonly Snap[];
}

interface DragOf {
  from: CropWindow;
  by: Point;
  /** It moves along one axis: the one that it has been moved along further. */
  isHeld: boolean;
  /** None where it does not snap. */
  snaps: readonly Snap[];
  /** How near, in pixels of the source. */
  reach: number;
  /** Where it may be. */
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
