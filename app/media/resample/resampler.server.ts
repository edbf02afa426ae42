import { readFileSync } from "node:fs";
import { assertNever } from "~/core/assert-never";
import { pictureBox, reducedSize } from "~/core/composition/backdrop";
import { type Composition, coversAll, type Pane } from "~/core/composition/composition";
import { isPlain } from "~/core/composition/edge";
import { PANES } from "~/core/composition/stack";
import { type Box, type Point, sameBox, scaleBox, type Size, wholeOf } from "~/core/geometry/box";
import { projectPath } from "../project-path.server";
import { paintColour, paintGradient, paintMirrored, type Plane, softened, ZERO } from "./backdrop";
import { darken, type EdgeMasks, edgeMasks, type Extent, extentOf, layOver, layOverMasked } from "./blend";
import type { Blend } from "~/core/composition/layers/layer";
import { blendColours } from "../layers/blend-modes";
import type { OverlayPlane } from "../layers/overlay";
import { fillWeights, tapsFor } from "./weights";

interface Kernel {
  resamplePlane(...args: number[]): void;
  blendPlane(...args: number[]): void;
}

/** One of the three planes of a picture in the kernel's memory. */
interface PlaneAt {
  at: number;
  size: Size;
}

interface Axis {
  starts: number;
  weights: number;
  /** Weights of each sample, and how many there is room for. */
  taps: number;
  mostTaps: number;
  /** The source samples that take part; starts count from the first of them. */
  first: number;
  used: number;
}

type Axes = Record<"lumaX" | "lumaY" | "chromaX" | "chromaY", Axis>;

interface Table {
  axes: Axes;
  pane: Pane | null;
  /** With what they were made for. */
  masks?: { of: string; masks: EdgeMasks };
}

const align = (bytes: number) => (bytes + 63) & ~63;
/** Bytes that the kernel may read beyond the end of a buffer. */
const SPARE = 64;
/** A pane may reduce the source so many times as much as the whole picture in the target does. */
const MOST_REDUCTION = 8;
const BLACK = "#000000";

/** Gives what a picture of the editor's own shows in its pane, to be laid over the frame. */
export interface PictureProvider {
  /** @param colour what is behind it */
  planes(pane: Pane, colour: string): readonly OverlayPlane[];
}
const NO_PICTURES: PictureProvider = { planes: () => [] };

/** The pixels of a plane that a box of a picture touches. */
function extentsIn(planes: readonly PlaneAt[], box: Box, plane: number): [Extent, Extent] {
  const { width, height } = planes[plane]!.size;
  const of = plane === 0 ? 1 : 2;
  return [extentOf(box.x / of, box.width / of, width), extentOf(box.y / of, box.height / of, height)];
}

/** How many times a picture is reduced to be as wide, and as high, as another. */
const reductionOf = (from: Size, to: Size): [number, number] => [from.width / to.width, from.height / to.height];

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
  private readonly sources: PlaneAt[];
  private readonly targets: PlaneAt[];
  /** A picture that is made blurred, reduced. */
  private readonly reduced: PlaneAt[];
  /** Where a pane is made that does not cover the frame, before it is laid over what is there. */
  private readonly scratch: number;
  /** How much of what is laid over the frame covers it. */
  private readonly cover: number;
  /** Weights of each pane, with what they are for: a pane that stands still needs them once. */
  private readonly tables: Table[] = [];
  /** The same for what is reduced, and for what is made large again. */
  private readonly reducing: Table;
  private readonly enlarging: Table;

  constructor(
    picture: Size,
    private readonly output: Size,
    panes: number = PANES.length,
    private readonly pictures: PictureProvider = NO_PICTURES,
  ) {
    const planesOf = ({ width, height }: Size): Size[] => {
      const chroma = { width: Math.ceil(width / 2), height: Math.ceil(height / 2) };
      return [{ width, height }, chroma, chroma];
    };
    const bytesOf = (sizes: Size[]) => sizes.reduce((sum, { width, height }) => sum + width * height, 0);
    const small = reducedSize(output);
    const [from, to, reduced] = [planesOf(picture), planesOf(output), planesOf(small)] as const;
    const reduction = (panes === 1 ? 1 : MOST_REDUCTION) * Math.max(...reductionOf(picture, output));
    const taps = {
      pane: tapsFor(reduction),
      reducing: tapsFor(Math.max(...reductionOf(picture, small))),
      enlarging: tapsFor(1),
    };
    const tableBytes = ({ width, height }: Size, count: number) =>
      (width + height) * (4 + 2 * count) * 2 + 8 * 2 * SPARE;
    const tables =
      panes * tableBytes(output, taps.pane) + tableBytes(small, taps.reducing) + tableBytes(output, taps.enlarging);
    // A plane of what is laid over the frame has room for the end of a row.
    const scratch = (output.width + SPARE) * output.height;
    const row = Math.max(picture.width, small.width) * 2;
    const buffers = bytesOf(from) + bytesOf(to) + bytesOf(reduced) + 2 * scratch + row + tables;
    this.memory = new WebAssembly.Memory({ initial: Math.ceil((this.next + buffers + 16 * 2 * SPARE) / 65536) + 1 });
    const bytes = readFileSync(projectPath("app/media/resample/kernel.wasm"));
    const instance = new WebAssembly.Instance(new WebAssembly.Module(bytes), { env: { memory: this.memory } });
    this.kernel = instance.exports as unknown as Kernel;
    const planesAt = (sizes: Size[]): PlaneAt[] => {
      let at = this.allocate(bytesOf(sizes));
      return sizes.map((size) => {
        const plane = { at, size };
        at += size.width * size.height;
        return plane;
      });
    };
    this.sources = planesAt(from);
    this.targets = planesAt(to);
    this.reduced = planesAt(reduced);
    this.scratch = this.allocate(scratch);
    this.cover = this.allocate(scratch);
    this.row = this.allocate(row);
    for (let i = 0; i < panes; i++) this.tables.push(this.allocateTable(output, taps.pane));
    this.reducing = this.allocateTable(small, taps.reducing);
    this.enlarging = this.allocateTable(output, taps.enlarging);
    this.source = new Uint8Array(this.memory.buffer, this.sources[0]!.at, bytesOf(from));
    this.target = new Uint8Array(this.memory.buffer, this.targets[0]!.at, bytesOf(to));
  }

  private allocate(bytes: number): number {
    const at = this.next;
    this.next = align(at + bytes + SPARE);
    return at;
  }

  private allocateTable({ width, height }: Size, taps: number): Table {
    const axis = (length: number): Axis => ({
      starts: this.allocate(length * 4),
      weights: this.allocate(length * taps * 2),
      taps,
      mostTaps: taps,
      first: 0,
      used: 0,
    });
    const axes = {
      lumaX: axis(width),
      lumaY: axis(height),
      chromaX: axis(Math.ceil(width / 2)),
      chromaY: axis(Math.ceil(height / 2)),
    };
    return { axes, pane: null };
  }

  private fillAxis(axis: Axis, length: number, start: number, step: number, sourceLength: number): void {
    if (length === 0) return;
    const { buffer } = this.memory;
    axis.taps = tapsFor(step);
    const starts = new Int32Array(buffer, axis.starts, length);
    const weights = new Int16Array(buffer, axis.weights, length * axis.taps);
    fillWeights(starts, weights, axis.taps, start, step, sourceLength);
    axis.first = starts[0]!;
    axis.used = starts[length - 1]! + axis.taps - axis.first;
    for (let i = 0; i < length; i++) starts[i]! -= axis.first;
  }

  /** Fills the weights of a pane for the pixels that it touches, unless they are what they were filled with last. */
  private fillTable(table: Table, { source, target }: Pane, from: readonly PlaneAt[], to: readonly PlaneAt[]): void {
    if (table.pane && sameBox(table.pane.source, source) && sameBox(table.pane.target, target)) return;
    const { axes } = table;
    const [luma, chroma] = from.map(({ size }) => size) as [Size, Size, Size];
    const step = { x: source.width / target.width, y: source.height / target.height };
    if (tapsFor(step.x) > axes.lumaX.mostTaps || tapsFor(step.y) > axes.lumaY.mostTaps) {
      throw new Error("a pane shows more of the source than can be made so small");
    }
    const [x, y] = extentsIn(to, target, 0);
    this.fillAxis(axes.lumaX, x.count, source.x + (x.from - target.x) * step.x, step.x, luma.width);
    this.fillAxis(axes.lumaY, y.count, source.y + (y.from - target.y) * step.y, step.y, luma.height);
    // Chroma is sited left (MPEG-2 style): on the even luma columns, and between two luma rows.
    const [cx, cy] = extentsIn(to, target, 1);
    const left = source.x + (2 * cx.from + 0.5 - target.x) * step.x;
    const top = source.y + (2 * cy.from - target.y) * step.y;
    this.fillAxis(axes.chromaX, cx.count, left / 2 + 0.25 - 0.5 * step.x, step.x, chroma.width);
    this.fillAxis(axes.chromaY, cy.count, top / 2, step.y, chroma.height);
    table.pane = { source: { ...source }, target: { ...target } };
  }

  /** @param stride bytes from one row of the target to the next */
  private resamplePlane(
    plane: number,
    axes: Axes,
    from: readonly PlaneAt[],
    to: number,
    size: Size,
    stride = size.width,
  ): void {
    const { at, size: source } = from[plane]!;
    const [x, y] = plane === 0 ? [axes.lumaX, axes.lumaY] : [axes.chromaX, axes.chromaY];
    this.kernel.resamplePlane(
      ...[at + y.first * source.width, source.width, to, stride, size.width, size.height, x.first, x.used],
      ...[x.starts, x.weights, x.taps, y.starts, y.weights, y.taps, this.row],
    );
  }

  /** Makes all of a picture from another one. */
  private resample(table: Table, source: Box, from: readonly PlaneAt[], to: readonly PlaneAt[]): void {
    this.fillTable(table, { source, target: wholeOf(to[0]!.size) }, from, to);
    for (const [plane, { at, size }] of to.entries()) this.resamplePlane(plane, table.axes, from, at, size);
  }

  /** Makes a pane and lays it over what is there. */
  private layOver(table: Table, pane: Pane): void {
    this.fillTable(table, pane, this.sources, this.targets);
    const masks = pane.edge && !isPlain(pane.edge) ? this.masksOf(table, { ...pane, edge: pane.edge }) : null;
    // Where it begins and ends with samples of chroma, it has nothing to be blended with.
    const { x: left, y: top, width, height } = pane.target;
    const isOnSamples = !masks && [left, top, width, height].every((side) => side % 2 === 0) && left >= 0 && top >= 0;
    this.bytesOf(this.targets).forEach((frame, plane) => {
      const [x, y] = extentsIn(this.targets, pane.target, plane);
      if (x.count === 0 || y.count === 0) return;
      if (isOnSamples) {
        const { at, size } = this.targets[plane]!;
        const to = at + y.from * size.width + x.from;
        return this.resamplePlane(plane, table.axes, this.sources, to, { width: x.count, height: y.count }, size.width);
      }
      this.resamplePlane(plane, table.axes, this.sources, this.scratch, { width: x.count, height: y.count });
      const made = new Uint8Array(this.memory.buffer, this.scratch, x.count * y.count);
      if (!masks) return layOver(frame, made, x, y);
      const of = Math.min(plane, 1);
      if (masks.shadow) darken(frame, masks.shadow[of]!, ZERO[plane]!);
      layOverMasked(frame, made, x, y, masks.cover[of]!);
    });
  }

  /** Of a pane that stands still they are made once. */
  private masksOf(table: Table, pane: Pane & Required<Pick<Pane, "edge">>): EdgeMasks {
    const { look, corner } = pane.edge;
    const { x, y, width, height } = pane.target;
    const made = [look, corner, x, y, width, height].join();
    if (table.masks?.of !== made) table.masks = { of: made, masks: edgeMasks(pane, this.output) };
    return table.masks.masks;
  }

  private bytesOf(planes: readonly PlaneAt[]): Plane[] {
    return planes.map(({ at, size }) => ({
      size,
      samples: new Uint8Array(this.memory.buffer, at, size.width * size.height),
    }));
  }

  /** Fills the frame with what lies behind a pane. */
  private paint({ look, source, own }: NonNullable<Composition["backdrop"]>, { source: part, target }: Pane): void {
    switch (look.kind) {
      case "colour":
        return paintColour(this.bytesOf(this.targets), look.colour);
      case "gradient":
        return paintGradient(this.bytesOf(this.targets), look);
      case "mirror":
        this.layOver(this.tables[0]!, { source: part, target });
        return this.bytesOf(this.targets).forEach((plane, i) => {
          paintMirrored(plane, scaleBox(target, i === 0 ? 1 : 0.5), look.darkness, ZERO[i]!);
        });
      case "blur":
        this.resample(this.reducing, source, this.sources, this.reduced);
        softened(this.bytesOf(this.reduced), look);
        return this.resample(this.enlarging, wholeOf(this.reduced[0]!.size), this.reduced, this.targets);
      case "picture":
        paintColour(this.bytesOf(this.targets), look.colour);
        return this.lay(
          { source: wholeOf(look.picture), target: pictureBox(look, this.output), ...(own ? { own } : {}) },
          look.colour,
        );
      default:
        return assertNever(look);
    }
  }

  /** Lays a picture of the editor's own over what is there; one that is not there leaves it. */
  private lay(pane: Pane, colour: string): void {
    this.blend(this.pictures.planes(pane, colour), 1);
  }

  /** Makes the frame of a composition from `source`, in `target`. */
  compose(composition: Composition): void {
    const { panes, backdrop } = composition;
    if (panes.length > this.tables.length) throw new Error("there are more panes than were to be expected");
    // What lies behind a pane that covers all of the frame is not seen.
    const covering = panes.findLastIndex((pane) => coversAll(composition, pane));
    if (covering < 0 && backdrop) this.paint(backdrop, panes[0]!);
    else if (covering < 0) paintColour(this.bytesOf(this.targets), BLACK);
    panes.slice(Math.max(0, covering)).forEach((pane, i) => {
      if (pane.own) return this.lay(pane, BLACK);
      const table = this.tables[Math.max(0, covering) + i]!;
      if (sameBox(pane.target, wholeOf(this.output))) {
        this.resample(table, pane.source, this.sources, this.targets);
        return;
      }
      this.layOver(table, pane);
    });
  }

  /**
   * Lays planes over the frame in `target`.
   *
   * @param opacity 0 to 1
   * @param by how far they are moved, in even pixels; what leaves the frame above or below is cut off
   */
  blend(planes: readonly OverlayPlane[], opacity: number, by: Point = { x: 0, y: 0 }, mode: Blend = "normal"): void {
    if (planes.length === 0) return;
    if (mode !== "normal") return blendColours(this.bytesOf(this.targets), planes, mode, opacity, by);
    const memory = new Uint8Array(this.memory.buffer);
    planes.forEach(({ x, y, stride, height, made, cover }, plane) => {
      const { at, size } = this.targets[plane]!;
      const of = plane === 0 ? 1 : 2;
      const top = y + by.y / of;
      const [first, last] = [Math.max(0, -top), Math.min(height, size.height - top)];
      if (last <= first) return;
      memory.set(made.subarray(first * stride, last * stride), this.scratch);
      memory.set(cover.subarray(first * stride, last * stride), this.cover);
      this.kernel.blendPlane(
        ...[at + (top + first) * size.width + x + by.x / of, size.width],
        ...[this.scratch, this.cover, stride, last - first, Math.round(255 * opacity)],
      );
    });
  }
}
