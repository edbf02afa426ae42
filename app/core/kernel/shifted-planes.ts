/** Two small planes of one size in the kernel's memory, one of which is shifted against the other. */
import { KernelMemory, loops } from "./kernel";

/** Shifts in samples, from the least to the most. */
export interface Shifts {
  leastX: number;
  mostX: number;
  leastY: number;
  mostY: number;
}

/** It lasts until the kernel is used for something else. */
export class ShiftedPlanes {
  private readonly memory = new KernelMemory();
  private readonly a: number;
  private readonly b: number;

  /** @param a,b whole numbers, such that a sum of their products is no more than 31 bits */
  constructor(
    a: Int16Array,
    b: Int16Array,
    private readonly columns: number,
    private readonly rows: number,
  ) {
    [this.a, this.b] = [this.memory.put(a), this.memory.put(b)];
  }

  /**
   * Sums of the products of a region of `b` with the region of `a` that lies (dx, dy) further, as far as that is there, for
   * each shift: row by row of shifts.
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
