import type { Box } from "~/core/geometry/box";
import type { FrameRange } from "~/core/time/rate";
import { type LaneGeometry, toPoint } from "./lane-geometry";

/** Canvas points, x and y in turn, of a window's two edges and centre line. */
export interface BandEdges {
  near: number[];
  far: number[];
  centre: number[];
}

/** A window's edges over a range, with points as dense as can be seen. */
export function bandEdges(
  sourceAt: (frame: number) => Box,
  { start, end }: FrameRange,
  geometry: LaneGeometry,
): BandEdges {
  // A point every second canvas pixel is as fine as can be seen.
  const step = Math.max(1, Math.floor(2 / geometry.pxPerFrame));
  const edges: BandEdges = { near: [], far: [], centre: [] };
  const add = (frame: number, source: Box) => {
    const from = source[geometry.axis];
    const length = geometry.axis === "x" ? source.width : source.height;
    const put = (points: number[], position: number) => {
      const { x, y } = toPoint(geometry, position, frame);
      points.push(x, y);
    };
    put(edges.near, from);
    put(edges.far, from + length);
    put(edges.centre, from + length / 2);
  };
  for (let frame = start; frame < end; frame += step) add(frame, sourceAt(frame));
  // The last one holds until the cut.
  add(end, sourceAt(end - 1));
  return edges;
}

/** Both edges as one outline: down one, and up the other. */
export function bandOutline({ near, far }: Pick<BandEdges, "near" | "far">): number[] {
  const back: number[] = [];
  for (let i = far.length - 2; i >= 0; i -= 2) back.push(far[i]!, far[i + 1]!);
  return [...near, ...back];
}
