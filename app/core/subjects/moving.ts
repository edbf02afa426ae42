/** What moves against the camera's own motion, as boxes, for scenes in which no detector knows anything. */
import type { Box, Size } from "../geometry/box";
import { type CameraMotion, departureOf } from "./camera-motion";
import type { Detection } from "./detection";
import type { Flow } from "./optical-flow";

/** Side of a cell, in pixels of the picture; the flow has one point in each. */
const CELL = 20;
/** The flow's plane has half the samples of the picture each way. */
const FLOW_SCALE = 2;
/** Movement from step to step, in samples of the flow, that is no noise. */
const LEAST_MOVEMENT = 0.8;
/** Movement that is certain. */
const CLEAR_MOVEMENT = 3;
/** What covers more of the picture than this is no subject but the scene itself, its camera misjudged. */
const MAX_SHARE = 0.4;
const MAX_BLOBS = 4;

/** How unlike two neighbours may move and still be of one thing, as a share of how far they moved by themselves. */
const MAX_DISCORD = 0.6;
/** A single point is more often a mistake of the flow than a thing. */
const LEAST_CELLS = 2;

/** What moves by itself in each cell, in samples of the flow. */
interface MovingCell {
  dx: number;
  dy: number;
  moved: number;
}

function movingCells(flow: Flow, camera: CameraMotion, columns: number, rows: number): (MovingCell | undefined)[] {
  const cells = new Array<MovingCell | undefined>(columns * rows);
  for (let i = 0; i < flow.corners; i++) {
    const { dx, dy } = departureOf(flow, i, camera);
    const moved = Math.hypot(dx, dy);
    if (moved < LEAST_MOVEMENT) continue;
    const column = Math.floor((FLOW_SCALE * (flow.x[i]! + flow.dx[i]!)) / CELL);
    const row = Math.floor((FLOW_SCALE * (flow.y[i]! + flow.dy[i]!)) / CELL);
    if (column < 0 || row < 0 || column >= columns || row >= rows) continue;
    const at = row * columns + column;
    if (moved > (cells[at]?.moved ?? 0)) cells[at] = { dx, dy, moved };
  }
  return cells;
}

const agree = (a: MovingCell, b: MovingCell): boolean =>
  Math.hypot(a.dx - b.dx, a.dy - b.dy) < MAX_DISCORD * Math.max(a.moved, b.moved);

/**
 * Groups the points that do not move as the camera does; each group of neighbours that move alike is a detection.
 * Without a camera motion that the picture agrees on nothing can be said to move by itself.
 */
export function movingThings(flow: Flow, camera: CameraMotion, picture: Size): Detection[] {
  if (camera.share < 0.5) return [];
  const columns = Math.ceil(picture.width / CELL);
  const rows = Math.ceil(picture.height / CELL);
  const cells = movingCells(flow, camera, columns, rows);
  const blobs: { box: Box; count: number; clearest: number }[] = [];
  const seen = new Set<number>();
  for (const [start, first] of cells.entries()) {
    if (!first || seen.has(start)) continue;
    seen.add(start);
    const open = [start];
    let [left, top, right, bottom, count, clearest] = [columns, rows, 0, 0, 0, 0];
    while (open.length > 0) {
      const cell = open.pop()!;
      const here = cells[cell]!;
      const column = cell % columns;
      const row = Math.floor(cell / columns);
      count++;
      clearest = Math.max(clearest, here.moved);
      [left, right] = [Math.min(left, column), Math.max(right, column + 1)];
      [top, bottom] = [Math.min(top, row), Math.max(bottom, row + 1)];
      for (let y = Math.max(0, row - 1); y <= Math.min(rows - 1, row + 1); y++) {
        for (let x = Math.max(0, column - 1); x <= Math.min(columns - 1, column + 1); x++) {
          const neighbour = y * columns + x;
          const other = cells[neighbour];
          if (!other || seen.has(neighbour) || !agree(here, other)) continue;
          seen.add(neighbour);
          open.push(neighbour);
        }
      }
    }
    if (count < LEAST_CELLS) continue;
    const box = { x: left * CELL, y: top * CELL, width: (right - left) * CELL, height: (bottom - top) * CELL };
    blobs.push({ box, count, clearest });
  }
  return blobs
    .filter(({ box }) => box.width * box.height < MAX_SHARE * picture.width * picture.height)
    .sort((a, b) => b.count * b.clearest - a.count * a.clearest)
    .slice(0, MAX_BLOBS)
    .map(({ box, clearest }) => ({ kind: "motion", box, score: Math.min(1, 0.3 + (0.7 * clearest) / CLEAR_MOVEMENT) }));
}
