import { readFileSync } from "node:fs";
import { type Composition, coversAll, type Pane } from "~/core/composition/composition";
import { type Box, sameBox, type Size, wholeOf } from "~/core/geometry/box";
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

type Axes = Record<"lumaX" | "lumaY" | "chromaX" | "chromaY", Axis>;

/** One of the three planes of a frame. */
interface Plane {
  at: number;
  size: Size;
}

/** The part of a plane's pixels that a pane touches, in whole pixels, and how much of each border it covers. */
interface Extent {
  from: number;
  count: number;
  /** Shares of the first and the last of them, 0 to 1. */
  first: number;
  last: number;
}

const align = (bytes: number) => (bytes + 63) & ~63;
/** Bytes that the kernel may read beyond the end of a buffer. */
const SPARE = 64;
/** A pane may reduce the source so many times as much as the whole picture in the target does. */
const MOST_REDUCTION = 8;
/** Black in limited range: of luma, and of both kinds of chroma. */
const BLACK = [16, 128, 128] as const;

/** What a pane that begins and ends between pixels touches. */
function extentOf(start: number, length: number, limit: number): Extent {
  const [low, high] = [Math.max(0, start), Math.min(limit, start + length)];
  const from = Math.floor(low);
  const to = Math.max(from, Math.ceil(high));
  const share = (pixel: number) => Math.max(0, Math.min(pixel + 1, high) - Math.max(pixel, low));
  return { from, count: to - from, first: share(from), last: share(to - 1) };
}

/**
 * Makes frames of compositions: takes each pane out of a planar 4:2:0 frame and scales it to its place in the target,
 * with sub-pixel accuracy on both sides. Write a frame into `source`, call `compose`, and read `target`.
 */
export class Resampler {
  readonly source: Uint8Array;
  readonly target: Uint8Array;
  private readonly memory: WebAssembly.Memory;
  private readonly kernel: Kernel;
  private next = 1024;
  private readonly row: number;
  private readonly sources: Plane[];
  private readonly targets: Plane[];
  /** Where a pane is made that does not cover the frame, before it is laid over what is there. */
  private readonly scratch: number;
  /** Weights of each pane, with what they are for: a pane that stands still needs them once. */
  private readonly tables: { axes: Axes; pane: Pane | null }[] = [];
  private readonly taps: { x: number; y: number };

  constructor(
    picture: Size,
    private readonly output: Size,
    panes = 1,
  ) {
    const planesOf = ({ width, height }: Size): Size[] => {
      const chroma = { width: Math.ceil(width / 2), height: Math.ceil(height / 2) };
      return [{ width, height }, chroma, chroma];
    };
    const bytesOf = (sizes: Size[]) => sizes.reduce((sum, { width, height }) => sum + width * height, 0);
    const [from, to] = [planesOf(picture), planesOf(output)];
    const reduction = panes === 1 ? 1 : MOST_REDUCTION;
    this.taps = {
      x: tapsFor((reduction * picture.width) / output.width),
      y: tapsFor((reduction * picture.height) / output.height),
    };
    const tables = panes * (output.width * (4 + 2 * this.taps.x) + output.height * (4 + 2 * this.taps.y)) * 2;
    const scratch = output.width * output.height;
    const buffers = bytesOf(from) + bytesOf(to) + scratch + picture.width * 2 + tables;
    this.memory = new WebAssembly.Memory({
      initial: Math.ceil((this.next + buffers + (16 + 8 * panes) * 2 * SPARE) / 65536) + 1,
    });
    const bytes = readFileSync(projectPath("app/media/resample/kernel.wasm"));
    const instance = new WebAssembly.Instance(new WebAssembly.Module(bytes), { env: { memory: this.memory } });
    this.kernel = instance.exports as unknown as Kernel;
    const planesAt = (sizes: Size[]): Plane[] => {
      let at = this.allocate(bytesOf(sizes));
      return sizes.map((size) => {
        const plane = { at, size };
        at += size.width * size.height;
        return plane;
      });
    };
    this.sources = planesAt(from);
    this.targets = planesAt(to);
    this.scratch = this.allocate(scratch);
    this.row = this.allocate(picture.width * 2);
    for (let i = 0; i < panes; i++) this.tables.push({ axes: this.allocateAxes(), pane: null });
    this.source = new Uint8Array(this.memory.buffer, this.sources[0]!.at, bytesOf(from));
    this.target = new Uint8Array(this.memory.buffer, this.targets[0]!.at, bytesOf(to));
  }

  private allocate(bytes: number): number {
    const at = this.next;
    this.next = align(at + bytes + SPARE);
    return at;
  }

  private allocateAxes(): Axes {
    const { output, taps } = this;
    const axis = (length: number, count: number): Axis => ({
      starts: this.allocate(length * 4),
      weights: this.allocate(length * count * 2),
      taps: count,
      first: 0,
      used: 0,
    });
    return {
      lumaX: axis(output.width, taps.x),
      lumaY: axis(output.height, taps.y),
      chromaX: axis(Math.ceil(output.width / 2), taps.x),
      chromaY: axis(Math.ceil(output.height / 2), taps.y),
    };
  }

  private fillAxis(axis: Axis, length: number, start: number, step: number, sourceLength: number): void {
    if (length === 0) return;
    const { buffer } = this.memory;
    const starts = new Int32Array(buffer, axis.starts, length);
    const weights = new Int16Array(buffer, axis.weights, length * axis.taps);
    fillWeights(starts, weights, axis.taps, start, step, sourceLength);
    axis.first = starts[0]!;
    axis.used = starts[length - 1]! + axis.taps - axis.first;
    for (let i = 0; i < length; i++) starts[i]! -= axis.first;
  }

  /** Fills the weights of a pane for the pixels that it touches. */
  private fillTables(axes: Axes, { source, target }: Pane): void {
    const [luma, chroma] = this.sources.map(({ size }) => size) as [Size, Size, Size];
    const step = { x: source.width / target.width, y: source.height / target.height };
    if (tapsFor(step.x) > this.taps.x || tapsFor(step.y) > this.taps.y) {
      throw new Error("a pane shows more of the source than can be made so small");
    }
    const [x, y] = this.extents(target, 1);
    this.fillAxis(axes.lumaX, x.count, source.x + (x.from - target.x) * step.x, step.x, luma.width);
    this.fillAxis(axes.lumaY, y.count, source.y + (y.from - target.y) * step.y, step.y, luma.height);
    // Chroma is sited left (MPEG-2 style): on the even luma columns, and between two luma rows.
    const [cx, cy] = this.extents(target, 2);
    const left = source.x + (2 * cx.from + 0.5 - target.x) * step.x;
    const top = source.y + (2 * cy.from - target.y) * step.y;
    this.fillAxis(axes.chromaX, cx.count, left / 2 + 0.25 - 0.5 * step.x, step.x, chroma.width);
    this.fillAxis(axes.chromaY, cy.count, top / 2, step.y, chroma.height);
  }

  /** The pixels of a plane that a box of the target touches, in a plane that has one for so many of the frame's. */
  private extents(target: Box, of: 1 | 2): [Extent, Extent] {
    const { width, height } = this.targets[of - 1]!.size;
    return [extentOf(target.x / of, target.width / of, width), extentOf(target.y / of, target.height / of, height)];
  }

  private resamplePlane(plane: number, axes: Axes, to: number, stride: number, size: Size): void {
    const { at, size: source } = this.sources[plane]!;
    const [x, y] = plane === 0 ? [axes.lumaX, axes.lumaY] : [axes.chromaX, axes.chromaY];
    this.kernel.resamplePlane(
      ...[at + y.first * source.width, source.width, to, stride, size.width, size.height, x.first, x.used],
      ...[x.starts, x.weights, x.taps, y.starts, y.weights, y.taps, this.row],
    );
  }

  /** Makes one plane of a pane and lays it over what is there, its borders as far as it covers them. */
  private layOver(plane: number, axes: Axes, target: Box): void {
    const [x, y] = this.extents(target, plane === 0 ? 1 : 2);
    if (x.count === 0 || y.count === 0) return;
    this.resamplePlane(plane, axes, this.scratch, x.count, { width: x.count, height: y.count });
    const { at, size } = this.targets[plane]!;
    const made = new Uint8Array(this.memory.buffer, this.scratch, x.count * y.count);
    const frame = new Uint8Array(this.memory.buffer, at, size.width * size.height);
    const shareOf = ({ count, first, last }: Extent, i: number) => (i === 0 ? first : i === count - 1 ? last : 1);
    for (let j = 0; j < y.count; j++) {
      const to = (y.from + j) * size.width + x.from;
      const line = made.subarray(j * x.count, (j + 1) * x.count);
      const down = shareOf(y, j);
      const blend = (i: number) => {
        const share = down * shareOf(x, i);
        frame[to + i] = Math.round(share * line[i]! + (1 - share) * frame[to + i]!);
      };
      if (down < 1) for (let i = 0; i < x.count; i++) blend(i);
      else {
        const ends = [frame[to]!, frame[to + x.count - 1]!];
        frame.set(line, to);
        [frame[to], frame[to + x.count - 1]] = ends as [number, number];
        blend(0);
        if (x.count > 1) blend(x.count - 1);
      }
    }
  }

  /** Makes the frame of a composition from `source`, in `target`. */
  compose(composition: Composition): void {
    const { panes } = composition;
    if (panes.length > this.tables.length) throw new Error("there are more panes than were to be expected");
    const covering = panes.findLastIndex((pane) => coversAll(composition, pane));
    if (covering < 0) {
      for (const [i, { at, size }] of this.targets.entries()) {
        new Uint8Array(this.memory.buffer, at, size.width * size.height).fill(BLACK[i]!);
      }
    }
    // What lies behind a pane that covers all of the frame is not seen.
    panes.slice(Math.max(0, covering)).forEach((pane, i) => {
      const table = this.tables[Math.max(0, covering) + i]!;
      const known = table.pane && sameBox(table.pane.source, pane.source) && sameBox(table.pane.target, pane.target);
      if (!known) {
        this.fillTables(table.axes, pane);
        table.pane = { source: { ...pane.source }, target: { ...pane.target } };
      }
      const isWhole = sameBox(pane.target, wholeOf(this.output));
      for (const [plane, { at, size }] of this.targets.entries()) {
        if (isWhole) this.resamplePlane(plane, table.axes, at, size.width, size);
        else this.layOver(plane, table.axes, pane.target);
      }
    });
  }
}
