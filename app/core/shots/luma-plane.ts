/** A rectangle in whole samples. */
export interface Region {
  x: number;
  y: number;
  width: number;
  height: number;
}

/** Luma samples with summed-area tables, which give the mean and variance of any rectangle in constant time. */
export class LumaPlane {
  readonly whole: { mean: number; deviation: number };
  private readonly sumTable: Float64Array;
  private readonly squareTable: Float64Array;
  private half: LumaPlane | null = null;

  constructor(
    readonly samples: Uint8Array | Float32Array,
    readonly columns: number,
    readonly rows: number,
  ) {
    const stride = columns + 1;
    this.sumTable = new Float64Array(stride * (rows + 1));
    this.squareTable = new Float64Array(stride * (rows + 1));
    for (let y = 0; y < rows; y++) {
      let sum = 0;
      let squares = 0;
      for (let x = 0; x < columns; x++) {
        const value = samples[y * columns + x]!;
        sum += value;
        squares += value * value;
        const at = (y + 1) * stride + x + 1;
        this.sumTable[at] = this.sumTable[at - stride]! + sum;
        this.squareTable[at] = this.squareTable[at - stride]! + squares;
      }
    }
    this.whole = this.statistics(0, 0, columns, rows);
  }

  /** Sum of a rectangle's samples. */
  sum(x: number, y: number, width: number, height: number): number {
    return this.total(this.sumTable, x, y, width, height);
  }

  /** Sum of the squares of a rectangle's samples. */
  squares(x: number, y: number, width: number, height: number): number {
    return this.total(this.squareTable, x, y, width, height);
  }

  private total(table: Float64Array, x: number, y: number, width: number, height: number): number {
    const stride = this.columns + 1;
    const top = y * stride + x;
    const bottom = top + height * stride;
    return table[bottom + width]! - table[bottom]! - table[top + width]! + table[top]!;
  }

  /** Mean and standard deviation of a rectangle. */
  statistics(x: number, y: number, width: number, height: number): { mean: number; deviation: number } {
    const mean = this.sum(x, y, width, height) / (width * height);
    const square = this.squares(x, y, width, height) / (width * height);
    return { mean, deviation: Math.sqrt(Math.max(0, square - mean * mean)) };
  }

  /** The same picture at half the size each way. */
  halved(): LumaPlane {
    if (this.half) return this.half;
    const [columns, rows] = [this.columns >> 1, this.rows >> 1];
    const samples = new Float32Array(columns * rows);
    for (let y = 0; y < rows; y++) {
      for (let x = 0; x < columns; x++) {
        samples[y * columns + x] = this.sum(2 * x, 2 * y, 2, 2) / 4;
      }
    }
    return (this.half = new LumaPlane(samples, columns, rows));
  }
}
