/** Two small planes of one size in the kernel's memory, to be correlated at shifts. */
import { KernelMemory, loops } from "./kernel";

/** Shifts in samples, from the least to the most. */
export interface Shifts {
  leastX: number;
  mostX: number;
  leastY: number;
  mostY: number;
}

/** Valid until the kernel is used for something else. */
export class ShiftedPlanes {
  private readonly memory = new KernelMemory();
  private readonly a: number;
  private readonly b: number;

  /** @param a,b whole numbers small enough for sums of their products to fit 31 bits */
  constructor(
    a: Int16Array,
    b: Int16Array,
    private readonly columns: number,
    private readonly rows: number,
  ) {
    [this.a, this.b] = [this.memory.put(a), this.memory.put(b)];
  }

  /**
   * Sums of products of a region of `b` with the region of `a` at an offset of (dx, dy), in their overlap, for each shift,
   * in row-major order of shifts.
   */
  products(
    { x, y, width, height }: { x: number; y: number; width: number; height: number },
    { leastX, mostX, leastY, mostY }: Shifts,
  ): Int32Array {
    const { a, b, columns, rows, memory } = this;
    const count = (mostX - leastX + 1) * (mostY - leastY + 1);
    const to = memory.take(4 * count);
    loops().shiftedProducts(a, b, columns, rows, x, y, width, height, leastX, mostX, leastY, mostY, to);
    return memory.ints(to, count);
  }
}
