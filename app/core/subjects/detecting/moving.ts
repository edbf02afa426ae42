/**
 * Independent motion as boxes, for scenes in which no detector knows anything: where two pictures differ after the camera's
 * motion is compensated, relative to the difference that a shift by one sample would make (the motion measure of Irani,
 * Rousso and Peleg, "Computing occluding and transparent motions", 1994).
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
/** The same in pixels, and that of a cell small enough to separate the parts of a moving thing by colour. */
const CELL_PIXELS = PYRAMID_SCALE * CELL;
const SMALL_CELL = CELL_PIXELS / 2;
/** Movement between pictures, in samples, above noise. */
const LEAST_MOVEMENT = 0.3;
/** Score below which motion may be the camera's, misestimated. */
export const CLEAR_MOVEMENT_SCORE = 0.6;
/** Movement that is certain. */
const CLEAR_MOVEMENT = 1.2;
/** Differences up to this multiple of the usual one are noise. */
const NOISE = 3;
/** Gradient, in levels per sample, below which a difference says little about movement. */
const LEAST_STEEPNESS = 7;
/** Cells this close belong to one thing: its inside may be too even to show motion. */
const REACH = 3;
/** Fewest cells of a thing: single ones are mostly errors. */
const LEAST_CELLS = 3;
/** Share of the picture above which motion is the scene itself, with its camera misestimated. */
const MAX_SHARE = 0.4;
const MAX_BLOBS = 4;

/** The median difference of a picture, from every seventh sample. */
function usualSize(differences: Float32Array): number {
  const some = new Float32Array(Math.floor((differences.length + 3) / 7));
  for (let i = 0; i < some.length; i++) some[i] = Math.abs(differences[7 * i + 3]!);
  some.sort();
  return some[some.length >> 1] ?? 0;
}

/** How far each cell moved independently, in samples, as far as it shows. */
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

/** Groups moving cells that lie near one another. */
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

/** The small cells of a picture's area that some of the larger cells of motion cover. */
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
 * Groups the parts of a picture that do not move with the camera; each group is a detection. Without a camera motion that
 * fits the picture, independent motion is unknown.
 * @param before the largest level of the pyramid of the picture before, and `now` that of this one
 * @param image the picture in colours
 * @param active the part of it without bars, its corner at even pixels
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
