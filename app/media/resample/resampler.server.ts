import { readFileSync } from "node:fs";
import type { Box, Size } from "~/core/geometry/box";
import { projectPath } from "../project-path.server";

/** Catmull-Rom: the cubic that reproduces parabolas, so nothing overshoots more than it must (a = −1/2). */
function cubic(distance: number): number {
  const x = Math.abs(distance);
  if (x < 1) return (1.5 * x - 2.5) * x * x + 1;
  if (x < 2) return ((-0.5 * x + 2.5) * x - 4) * x + 2;
  return 0;
}

const UNIT = 1 << 14;

/**
 * Weights of a 1-D resampling. Output sample i lies at `start + (i + 0.5) · step` in the source, where the
 * sample k lies at k + 0.5; positions beyond the edge repeat the edge. Writes the first source index and
 * `taps` weights of each output sample; a sample's weights sum to exactly 2^14.
 */
export function fillWeights(
  starts: Int32Array,
  weights: Int16Array,
  taps: number,
  start: number,
  step: number,
  sourceLength: number,
): void {
  const stretch = Math.max(1, step);
  const reach = 2 * stretch;
  const row = new Float64Array(taps);
  for (let i = 0; i < starts.length; i++) {
    const centre = start + (i + 0.5) * step - 0.5;
    const from = Math.ceil(centre - reach);
    const to = Math.floor(centre + reach);
    const first = Math.max(0, Math.min(sourceLength - taps, from));
    row.fill(0);
    let sum = 0;
    for (let k = from; k <= to; k++) {
      const weight = cubic((k - centre) / stretch);
      const inside = Math.max(0, Math.min(sourceLength - 1, k)) - first;
      row[Math.max(0, Math.min(taps - 1, inside))]! += weight;
      sum += weight;
    }
    let rest = UNIT;
    let largest = 0;
    for (let k = 0; k < taps; k++) {
      const value = Math.round((row[k]! / sum) * UNIT);
      weights[i * taps + k] = value;
      rest -= value;
      if (row[k]! > row[largest]!) largest = k;
    }
    weights[i * taps + largest]! += rest;
    starts[i] = first;
  }
}

/** Taps that a step needs: a cubic spans four samples, more when it reduces; a multiple of eight. */
const tapsFor = (step: number): number => Math.ceil((4 * Math.max(1, step) + 1) / 8) * 8;

interface Kernel {
  resamplePlane(...args: number[]): void;
}

interface Axis {
  starts: number;
  weights: number;
  taps: number;
  /** The source samples that take part; starts count from the first of them. */
  first: number;
  used: number;
}

const align = (bytes: number) => (bytes + 63) & ~63;
/** Bytes that the kernel may read beyond the end of a buffer. */
const SPARE = 64;

/**
 * Cuts a window out of planar 4:2:0 frames and scales it to the target's size, with sub-pixel accuracy. Write
 * a frame into `source`, call `resample`, and read `target`.
 */
export class Resampler {
  readonly source: Uint8Array;
  readonly target: Uint8Array;
  private readonly memory: WebAssembly.Memory;
  private readonly kernel: Kernel;
  private next = 1024;
  private readonly row: number;
  private readonly sourceAt: number;
  private readonly targetAt: number;
  private readonly axes: Record<"lumaX" | "lumaY" | "chromaX" | "chromaY", Axis>;
  private current: Box | null = null;

  constructor(
    private readonly picture: Size,
    private readonly output: Size,
  ) {
    const chroma = this.chromaOf(picture);
    const sourceBytes = picture.width * picture.height + 2 * chroma.width * chroma.height;
    const targetBytes = (output.width * output.height * 3) / 2;
    // The largest reduction: the whole picture in the target.
    const taps = {
      x: tapsFor(picture.width / output.width),
      y: tapsFor(picture.height / output.height),
    };
    const tables = (output.width * (4 + 2 * taps.x) + output.height * (4 + 2 * taps.y)) * 2;
    const total = this.next + sourceBytes + targetBytes + picture.width * 2 + tables + 16 * SPARE;
    this.memory = new WebAssembly.Memory({ initial: Math.ceil(total / 65536) + 1 });
    const bytes = readFileSync(projectPath("app/media/resample/kernel.wasm"));
    const instance = new WebAssembly.Instance(new WebAssembly.Module(bytes), { env: { memory: this.memory } });
    this.kernel = instance.exports as unknown as Kernel;
    this.sourceAt = this.allocate(sourceBytes);
    this.targetAt = this.allocate(targetBytes);
    this.row = this.allocate(picture.width * 2);
    const axis = (length: number, count: number): Axis => ({
      starts: this.allocate(length * 4),
      weights: this.allocate(length * count * 2),
      taps: count,
      first: 0,
      used: 0,
    });
    this.axes = {
      lumaX: axis(output.width, taps.x),
      lumaY: axis(output.height, taps.y),
      chromaX: axis(output.width / 2, taps.x),
      chromaY: axis(output.height / 2, taps.y),
    };
    this.source = new Uint8Array(this.memory.buffer, this.sourceAt, sourceBytes);
    this.target = new Uint8Array(this.memory.buffer, this.targetAt, targetBytes);
  }

  private allocate(bytes: number): number {
    const at = this.next;
    this.next = align(at + bytes + SPARE);
    return at;
  }

  private chromaOf({ width, height }: Size): Size {
    return { width: Math.ceil(width / 2), height: Math.ceil(height / 2) };
  }

  private fill(axis: Axis, length: number, start: number, step: number, sourceLength: number): void {
    const { buffer } = this.memory;
    const starts = new Int32Array(buffer, axis.starts, length);
    const weights = new Int16Array(buffer, axis.weights, length * axis.taps);
    fillWeights(starts, weights, axis.taps, start, step, sourceLength);
    axis.first = starts[0]!;
    axis.used = starts[length - 1]! + axis.taps - axis.first;
    for (let i = 0; i < length; i++) starts[i]! -= axis.first;
  }

  private plane(source: number, sourceWidth: number, target: number, size: Size, x: Axis, y: Axis): void {
    this.kernel.resamplePlane(
      ...[source + y.first * sourceWidth, sourceWidth, target, size.width, size.height, x.first, x.used],
      ...[x.starts, x.weights, x.taps, y.starts, y.weights, y.taps, this.row],
    );
  }

  /** Resamples the window, in source pixels, from `source` into `target`. */
  resample(window: Box): void {
    const { picture, output, axes } = this;
    const chroma = this.chromaOf(picture);
    const half = { width: output.width / 2, height: output.height / 2 };
    const same =
      this.current &&
      this.current.x === window.x &&
      this.current.y === window.y &&
      this.current.width === window.width &&
      this.current.height === window.height;
    if (!same) {
      const stepX = window.width / output.width;
      const stepY = window.height / output.height;
      this.fill(axes.lumaX, output.width, window.x, stepX, picture.width);
      this.fill(axes.lumaY, output.height, window.y, stepY, picture.height);
      // Chroma is sited left (MPEG-2 style): on the even luma columns, and between two luma rows.
      this.fill(axes.chromaX, half.width, (window.x + 0.5) / 2 - 0.25 * stepX, stepX, chroma.width);
      this.fill(axes.chromaY, half.height, window.y / 2, stepY, chroma.height);
      this.current = { ...window };
    }
    const lumaIn = picture.width * picture.height;
    const lumaOut = output.width * output.height;
    this.plane(this.sourceAt, picture.width, this.targetAt, output, axes.lumaX, axes.lumaY);
    for (let plane = 0; plane < 2; plane++) {
      const from = this.sourceAt + lumaIn + plane * chroma.width * chroma.height;
      const to = this.targetAt + lumaOut + plane * half.width * half.height;
      this.plane(from, chroma.width, to, half, axes.chromaX, axes.chromaY);
    }
  }
}
