/** Two pictures in the kernel's memory, and points followed from the first to the second. */
import type { GreyPlane } from "../image/grey-plane";
import { KernelMemory, loops } from "./kernel";

/** Points, at the same index of all arrays, in samples of the largest planes. The arrays are valid until the next pair. */
export interface FollowedPoints {
  x: Float32Array;
  y: Float32Array;
  /** Displacement of each. */
  dx: Float32Array;
  dy: Float32Array;
  /** Mean difference between the match and the original, 0 to 255; larger where there was no match. */
  residual: Float32Array;
  /** Root mean square of the gradient at the point, 0 to 255. */
  contrast: Float32Array;
}

const COLUMNS = ["x", "y", "dx", "dy", "residual", "contrast"] as const;

export class PicturePair {
  private readonly memory = new KernelMemory();
  /** The kernel's table of `Level`s, the largest first. */
  private readonly table: number;
  private readonly levels: { before: number; after: number; width: number; height: number }[];
  private readonly columns: number[];
  private count = 0;

  /**
   * @param before pyramids of planes of equal size, the largest first
   * @param most largest number of points to be followed
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

  /** Mean difference, 0 to 255, of the smallest planes in their overlap, with the second shifted. */
  differenceOfSmallest(dx: number, dy: number): number {
    const { before, after, width, height } = this.levels.at(-1)!;
    return loops().shiftedDifference(before, after, width, height, dx, dy);
  }

  /**
   * Adds the centre of the most structured block of each cell of a grid to the points, where there is any structure.
   * @param cell its side, and that of a `block`, in samples of the largest plane
   * @param least smallest eigenvalue of the structure tensor, per sample
   * @returns number of points added
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
   * Follows all points. Every search starts at the point's place and, if the whole picture moved, also at the shifted
   * place; the better match is taken.
   * @param shift of the whole picture, in samples of the smallest planes
   */
  follow(shift: { dx: number; dy: number }): FollowedPoints {
    const { memory, columns, count } = this;
    const job = memory.put(Int32Array.of(count, ...columns));
    loops().followPoints(this.table, this.levels.length, job, shift.dx, shift.dy);
    const [x, y, dx, dy, residual, contrast] = columns.map((column) => memory.floats(column, count));
    return { x: x!, y: y!, dx: dx!, dy: dy!, residual: residual!, contrast: contrast! };
  }
}
