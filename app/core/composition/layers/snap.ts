/** Snapping of a dragged layer to the lines that it aligns with. */
import type { Box, Size } from "../../geometry/box";
import type { LayerGround } from "./draw-layer";
import { safeBox } from "./safe-area";

type Axis = "x" | "y";

/** A line that something has snapped to, in pixels of the frame. */
export interface Guide {
  axis: Axis;
  at: number;
}

/** Lines of a frame: the safe area's edges, its thirds and its centre. */
function guidesOf({ frame, safe }: LayerGround): Record<Axis, number[]> {
  const room = safeBox(safe, frame);
  const of = (from: number, length: number, whole: number) => [
    from,
    from + length,
    whole / 3,
    whole / 2,
    (2 * whole) / 3,
  ];
  return { x: of(room.x, room.width, frame.width), y: of(room.y, room.height, frame.height) };
}

/**
 * A box moved to the nearest line that its edges or its centre approach, on each axis.
 * @param reach in pixels of the frame
 */
export function snapBox(box: Box, ground: LayerGround, reach: number): { box: Box; guides: Guide[] } {
  const guides: Guide[] = [];
  const lines = guidesOf(ground);
  const moved = (axis: Axis, extent: keyof Size): number => {
    const parts = [0, box[extent] / 2, box[extent]];
    const pairs = lines[axis].flatMap((at) => parts.map((part) => ({ at, by: at - box[axis] - part })));
    const nearest = pairs.reduce((best, pair) => (Math.abs(pair.by) < Math.abs(best.by) ? pair : best));
    if (Math.abs(nearest.by) > reach) return box[axis];
    guides.push({ axis, at: nearest.at });
    return box[axis] + nearest.by;
  };
  return { box: { ...box, x: moved("x", "width"), y: moved("y", "height") }, guides };
}
