/** Two pictures in the kernel's memory, and points of the first that are followed to the second. */
import type { GreyPlane } from "../image/grey-plane";
import { KernelMemory, loops } from "./kernel";

/** Points, one in each place of all arrays, in samples of the largest planes. The arrays last until the next pair. */
export interface FollowedPoints {
  x: Float32Array;
  y: Float32Array;
  /** How far each has gone. */
  dx: Float32Array;
  dy: Float32Array;
  /** Mean difference of what was found from what was looked for, 0 to 255; more than that where nothing was found. */
  residual: Float32Array;
  /** Root mean square of the gradient there, 0 to 255. */
  contrast: Float32Array;
}

const COLUMNS = ["x", "y", "dx", "dy", "residual", "contrast"] as const;

export class PicturePair {
  private readonly memory = new KernelMemory();
  /** The kernel's table of `Level`s, the largest first, and what is in it. */
  private readonly table: number;
  private readonly levels: { before: number; after: number; width: number; height: number }[];
  private readonly columns: number[];
  private count = 0;

  /**
   * @param before pyramids of equal planes, the largest first
   * @param most as many points as can come to be followed
   */
  constructor(
    before: readonly GreyPlane[],
    after: readonly GreyPlane[],
    private readonly most: number,
  ) {
    const { memory } = this;
    const staging = memory.take(before[0]!.samples.length);
    const put = ({ samples }: GreyPlane): number => {
      const at = memory.take(4 * samples.length);
      memory.bytes(staging, samples.length).set(samples);
      loops().toFloats(staging, at, samples.length);
      return at;
    };
    this.levels = before.map((plane, i) => {
      const { width, height } = plane;
      return { before: put(plane), after: put(after[i]!), width, height };
    });
    const fields = this.levels.flatMap(({ before, after, width, height }) => [before, after, width, height]);
    this.table = memory.put(Int32Array.from(fields));
    this.columns = COLUMNS.map(() => memory.take(4 * most));
  }

  /** Mean difference, 0 to 255, of the smallest planes where both show something, if the second is shifted. */
  differenceOfSmallest(dx: number, dy: number): number {
    const { before, after, width, height } = this.levels.at(-1)!;
    return loops().shiftedDifference(before, after, width, height, dx, dy);
  }

  /**
   * Adds the middle of the most structured block of each cell of a grid to the points, where there is any structure.
   *
   * @param cell its side, and that of a `block`, in samples of the largest plane
   * @param least smaller eigenvalue of the structure tensor, a sample
   * @returns how many they are
   */
  addCorners(cell: number, block: number, least: number): number {
    const { before, width, height } = this.levels[0]!;
    const [x, y] = this.columns.map((column) => column + 4 * this.count) as [number, number];
    const added = loops().findCorners(before, width, height, cell, block, least, x, y);
    this.count += added;
    return added;
  }

  /** Adds points by their places in the largest plane. */
  add(points: readonly { x: number; y: number }[]): void {
    const [x, y] = this.columns.map((column) => this.memory.floats(column, this.most));
    for (const point of points) {
      x![this.count] = point.x;
      y![this.count++] = point.y;
    }
  }

  /**
   * Follows all points. Every search begins where the point was and, if the picture as a whole went somewhere, also there;
   * what is more like the point is taken.
   *
   * @param shift where it went, in samples of the smallest planes
   */
  follow(shift: { dx: number; dy: number }): FollowedPoints {
    const { memory, columns, count } = this;
    const job = memory.put(Int32Array.of(count, ...columns));
    loops().followPoints(this.table, this.levels.length, job, shift.dx, shift.dy);
    const [x, y, dx, dy, residual, contrast] = columns.map((column) => memory.floats(column, count));
    return { x: x!, y: y!, dx: dx!, dy: dy!, residual: residual!, contrast: contrast! };
  }
}
