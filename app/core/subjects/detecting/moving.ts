/**
 * What moves against the camera's own motion, as boxes, for scenes in which no detector knows anything: where two
 * pictures differ although the camera's motion is taken out, beside how much they would differ for a shift of one
 * sample (the motion measure of Irani, Rousso and Peleg, "Computing occluding and transparent motions", 1994).
 */
import { type Box, moveBox, scaleBox, type Size, wholeOf } from "../../geometry/box";
import { connectedCells } from "../../image/connected-cells";
import type { GreyPlane } from "../../image/grey-plane";
import { PYRAMID_SCALE } from "../../image/grey-pyramid";
import type { YuvImage } from "../../image/yuv-image";
import { KernelMemory, loops } from "../../kernel/kernel";
import { type CameraMotion, inverseOf } from "./camera-motion";
import type { Detection } from "./detection";
import { heldInMotion, mayBeArm } from "./held-thing";
import { type LabCells, labCells } from "./lab-cells";

/** Side of a cell, in samples. */
const CELL = 6;
/** The same in pixels, and of one that is small enough to tell the parts of what moves by their colours. */
const CELL_PIXELS = PYRAMID_SCALE * CELL;
const SMALL_CELL = CELL_PIXELS / 2;
/** Movement from picture to picture, in samples, that is no noise. */
const LEAST_MOVEMENT = 0.3;
/** A movement of less than this score may be the camera's, misjudged. */
export const CLEAR_MOVEMENT_SCORE = 0.6;
/** Movement that is certain. */
const CLEAR_MOVEMENT = 1.2;
/** Differences up to so many times the usual one are noise. */
const NOISE = 3;
/** Steepness, in levels a sample, below which a difference says little about a movement. */
const LEAST_STEEPNESS = 7;
/** Cells this near one another are of one thing: its inside may be too even to show that it moves. */
const REACH = 3;
/** A single cell is more often a mistake than a thing. */
const LEAST_CELLS = 3;
/** What covers more of the picture than this is no subject but the scene itself, its camera misjudged. */
const MAX_SHARE = 0.4;
const MAX_BLOBS = 4;

/** The size of difference that half of a picture stays under, from every seventh sample. */
function usualSize(differences: Float32Array): number {
  const some = new Float32Array(Math.floor((differences.length + 3) / 7));
  for (let i = 0; i < some.length; i++) some[i] = Math.abs(differences[7 * i + 3]!);
  some.sort();
  return some[some.length >> 1] ?? 0;
}

/** How far each cell moved by itself, in samples, as far as it shows. */
function movementOf(before: GreyPlane, now: GreyPlane, camera: CameraMotion, grid: Size): Float32Array {
  const { width, height, samples } = now;
  const cells = grid.width * grid.height;
  const memory = new KernelMemory();
  const [old, fresh] = [memory.put(before.samples), memory.put(samples)];
  const [differences, movement] = [memory.take(4 * samples.length), memory.take(4 * cells)];
  const { a, b, tx, ty } = inverseOf(camera);
  loops().differencesFrom(old, fresh, width, height, a, b, tx, ty, differences);
  const noise = usualSize(memory.floats(differences, samples.length));
  const floor = CELL * CELL * (LEAST_STEEPNESS + noise) ** 2;
  const clear = NOISE * noise;
  loops().moveCells(fresh, differences, width, height, CELL, grid.width, grid.height, clear, floor, movement);
  return memory.floats(movement, cells).slice();
}

interface Blob {
  box: Box;
  cells: readonly number[];
  total: number;
  clearest: number;
}

/** Cells that moved and lie near one another, together. */
function blobsOf(movement: Float32Array, grid: Size): Blob[] {
  const blobs: Blob[] = [];
  const moved = (cell: number) => movement[cell]! >= LEAST_MOVEMENT;
  const seen = new Set<number>();
  for (const start of movement.keys()) {
    if (!moved(start) || seen.has(start)) continue;
    const { cells, box } = connectedCells(grid, start, moved, REACH);
    let [total, clearest] = [0, 0];
    for (const cell of cells) {
      seen.add(cell);
      total += movement[cell]!;
      clearest = Math.max(clearest, movement[cell]!);
    }
    blobs.push({ box: scaleBox(box, CELL_PIXELS), cells, total, clearest });
  }
  return blobs;
}

/** The cells of a picture's area that some of the larger cells of motion cover. */
function smallCells(cells: readonly number[], columns: number, area: Box, grid: Size): number[] {
  return cells.flatMap((cell) => {
    const left = Math.round(((cell % columns) * CELL_PIXELS - area.x) / SMALL_CELL);
    const top = Math.round((Math.floor(cell / columns) * CELL_PIXELS - area.y) / SMALL_CELL);
    return [0, 1, 2, 3].flatMap((corner) => {
      const [x, y] = [left + (corner & 1), top + (corner >> 1)];
      return x >= 0 && x < grid.width && y >= 0 && y < grid.height ? [y * grid.width + x] : [];
    });
  });
}

/**
 * Groups the parts of a picture that do not move as the camera does; each group is a detection. Without a camera motion
 * that the picture agrees on nothing can be said to move by itself.
 *
 * @param before the largest level of the pyramid of the picture before, and `now` that of this one
 * @param image the picture in colours
 * @param active the part of it that is not bars, its corner at even pixels
 * @returns boxes in pixels of the picture
 */
export function movingThings(
  before: GreyPlane,
  now: GreyPlane,
  camera: CameraMotion,
  image: YuvImage,
  active = wholeOf(image),
): Detection[] {
  if (camera.share < 0.5) return [];
  const grid = { width: Math.ceil(now.width / CELL), height: Math.ceil(now.height / CELL) };
  const area = PYRAMID_SCALE * PYRAMID_SCALE * now.width * now.height;
  const blobs = blobsOf(movementOf(before, now, camera, grid), grid)
    .filter(({ box, cells }) => cells.length >= LEAST_CELLS && box.width * box.height < MAX_SHARE * area)
    .sort((a, b) => b.total - a.total)
    .slice(0, MAX_BLOBS);
  let colours: LabCells | null = null;
  const heldIn = ({ cells }: Blob): Box | null => {
    if (!mayBeArm(cells, grid.width, scaleBox(active, 1 / CELL_PIXELS))) return null;
    colours ??= labCells(image, SMALL_CELL, active);
    const held = heldInMotion(colours, smallCells(cells, grid.width, active, colours));
    return held && moveBox(scaleBox(held, SMALL_CELL), active);
  };
  return blobs.map((blob) => {
    const score = Math.min(1, 0.3 + (0.7 * blob.clearest) / CLEAR_MOVEMENT);
    const held = heldIn(blob);
    return { kind: "motion", score, box: held ?? blob.box, ...(held && { withArm: blob.box }) };
  });
}
