/**
 * Sparse optical flow between two pictures: the method of Lucas and Kanade (1981) on a pyramid (Bouguet 2001), at the best
 * corner (Shi and Tomasi 1994) of each cell of a grid. Its loops are in `kernel/flow.as.ts`.
 */
import type { Point, Size } from "../../geometry/box";
import type { GreyPlane } from "../../image/grey-plane";
import { PicturePair } from "../../kernel/picture-pair";

/** Distance between corners, in samples of the pyramid's largest level. */
const CELL = 10;
/** Side of the blocks of a cell, of which the most structured one is followed. */
const BLOCK = 5;
/** Smaller eigenvalue of the structure tensor, per sample, below which a point cannot be followed. */
const LEAST_STRUCTURE = 6;
/** Residual, of 255 and as a share of the contrast, above which a point was not found. */
const MAX_RESIDUAL = 4;
const RESIDUAL_SHARE = 0.35;
/** Search range of the whole picture's shift, in samples of the smallest level, and cost per sample, of 255. */
const COMMON_REACH = 4;
const SHIFT_COST = 0.15;
const BLIND_SHARE = 0.35;
const BLIND_UNLIKE = 35;

/** Points of one picture and their displacement to the next; in samples of the largest level. */
export interface Flow {
  count: number;
  /** Number of points, the first ones, that are the picture's own corners, and the number searched for. */
  corners: number;
  tried: number;
  /** Difference of the whole pictures even at the best shift, 0 to 255. */
  unlike: number;
  x: Float32Array;
  y: Float32Array;
  dx: Float32Array;
  dy: Float32Array;
  /** Group of each point, of those requested; `PICTURE_POINT` for the picture's own corners. */
  group: Int16Array;
}

export const PICTURE_POINT = -1;

/** The best shift of the smallest planes, by mean difference in their overlap. */
function commonShift(pair: PicturePair, { width, height }: Size): { dx: number; dy: number; unlike: number } {
  let best = { dx: 0, dy: 0 };
  let least = Infinity;
  const reach = { x: Math.min(COMMON_REACH, width >> 2), y: Math.min(COMMON_REACH, height >> 2) };
  for (let dy = -reach.y; dy <= reach.y; dy++) {
    for (let dx = -reach.x; dx <= reach.x; dx++) {
      const cost = pair.differenceOfSmallest(dx, dy) + SHIFT_COST * (Math.abs(dx) + Math.abs(dy));
      if (cost < least) [least, best] = [cost, { dx, dy }];
    }
  }
  return { ...best, unlike: least };
}

/**
 * Follows the corners of one picture to the next.
 * @param groups further points to be followed, in samples of the largest level
 */
export function opticalFlow(
  before: readonly GreyPlane[],
  after: readonly GreyPlane[],
  groups: readonly (readonly Point[])[] = [],
): Flow {
  const { width, height } = before[0]!;
  const asked = groups.reduce((sum, group) => sum + group.length, 0);
  const pair = new PicturePair(before, after, Math.ceil(width / CELL) * Math.ceil(height / CELL) + asked);
  const tried = pair.addCorners(CELL, BLOCK, LEAST_STRUCTURE);
  for (const group of groups) pair.add(group);
  const shift = commonShift(pair, before.at(-1)!);
  const points = pair.follow(shift);
  const groupOf = [
    ...new Array<number>(tried).fill(PICTURE_POINT),
    ...groups.flatMap((group, g) => group.map(() => g)),
  ];
  const found = Array.from(groupOf.keys()).filter(
    (i) => points.residual[i]! <= MAX_RESIDUAL + RESIDUAL_SHARE * points.contrast[i]!,
  );
  const of = (column: Float32Array) => Float32Array.from(found, (i) => column[i]!);
  return {
    count: found.length,
    corners: found.filter((i) => i < tried).length,
    tried,
    unlike: shift.unlike,
    x: of(points.x),
    y: of(points.y),
    dx: of(points.dx),
    dy: of(points.dy),
    group: Int16Array.from(found, (i) => groupOf[i]!),
  };
}

/** Whether two pictures are too different for their flow to be meaningful: a flash, a cut, black. */
export const isBlind = ({ corners, tried, unlike }: Flow): boolean =>
  corners < BLIND_SHARE * tried || unlike > BLIND_UNLIKE;
