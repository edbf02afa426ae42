import { assertNever } from "~/core/basics/assert-never";
import { pictureBox, reducedSize } from "~/core/composition/backdrop";
import { type Composition, coversAll, type Pane } from "~/core/composition/composition";
import { isPlain } from "~/core/composition/edge";
import { PANES } from "~/core/composition/stack";
import { type Box, type Point, sameBox, scaleBox, type Size, wholeOf } from "~/core/geometry/box";
import { type BitDepth, bytesPerSample } from "~/core/image/bit-depth";
import { paintColour, paintGradient, paintMirrored, softened, ZERO } from "./backdrop";
import { darken, type EdgeMasks, edgeMasks, layOver, layOverMasked } from "./blend";
import type { Blend } from "~/core/composition/layers/layer";
import { blendColours } from "../layers/blend-modes";
import type { OverlayPlane } from "../layers/overlay";
import { Kernel, Layout, type PlaneAt } from "./kernel.server";
import { extentsIn, fillTable, type PaneTable, takeTable } from "./pane-table";
import { tapsFor } from "./weights";

interface Table extends PaneTable {
  /** With the pane that they were made for. */
  masks?: { key: string; masks: EdgeMasks };
}

/** Strongest reduction in a pane, relative to that of the whole picture in the target. */
const MOST_REDUCTION = 8;
/** Bytes by which a row of an overlay may exceed the frame's. */
const ROW_END = 8;
const BLACK = "#000000";

/** Gives planes of the editor's own pictures in panes, to be laid over the frame. */
export interface PictureProvider {
  /** @param colour behind it */
  planes(pane: Pane, colour: string): readonly OverlayPlane[];
}
const NO_PICTURES: PictureProvider = { planes: () => [] };

export interface ResamplerOptions {
  /** Most panes of a composition; the largest possible number if left out. */
  panes?: number;
  pictures?: PictureProvider;
  /** Bits per sample of input and output; 8 if left out. */
  depth?: BitDepth;
}

/** Reduction from one size to another, horizontally and vertically. */
const reductionOf = (from: Size, to: Size): [number, number] => [from.width / to.width, from.height / to.height];

/**
 * Makes frames of compositions: takes each pane out of a planar 4:2:0 frame and scales it to its place in the target, with
 * sub-pixel accuracy on both sides. Write a frame into `source`, call `compose`, and read `target`; both are the bytes of
 * all planes.
 */
export class Resampler {
  readonly source: Uint8Array;
  readonly target: Uint8Array;
  private readonly kernel: Kernel;
  private readonly pictures: PictureProvider;
  private readonly sampleBytes: number;
  private readonly row: number;
  private readonly sources: PlaneAt[];
  private readonly targets: PlaneAt[];
  /** The reduced picture for a blurred backdrop. */
  private readonly reduced: PlaneAt[];
  /** Buffer for a pane that does not cover the frame, before it is laid over the rest. */
  private readonly scratch: number;
  /** Buffer for the cover of an overlay. */
  private readonly cover: number;
  /** Weights of each pane; a pane that does not move needs them once. */
  private readonly tables: Table[];
  /** The same for reducing a picture, and for enlarging it again. */
  private readonly reducing: Table;
  private readonly enlarging: Table;

  constructor(
    picture: Size,
    private readonly output: Size,
    { panes = PANES.length, pictures = NO_PICTURES, depth = 8 }: ResamplerOptions = {},
  ) {
    this.pictures = pictures;
    this.sampleBytes = bytesPerSample(depth);
    const layout = new Layout(depth);
    const small = reducedSize(output);
    this.sources = layout.takePlanes(picture);
    this.targets = layout.takePlanes(output);
    this.reduced = layout.takePlanes(small);
    // A plane of an overlay has room for the end of a row.
    const scratch = (output.width + ROW_END) * output.height * this.sampleBytes;
    this.scratch = layout.take(scratch);
    this.cover = layout.take(scratch);
    this.row = layout.take(2 * Math.max(picture.width, small.width));
    const reduction = (panes === 1 ? 1 : MOST_REDUCTION) * Math.max(...reductionOf(picture, output));
    this.tables = Array.from({ length: panes }, () => takeTable(layout, output, tapsFor(reduction)));
    this.reducing = takeTable(layout, small, tapsFor(Math.max(...reductionOf(picture, small))));
    this.enlarging = takeTable(layout, output, tapsFor(1));
    this.kernel = new Kernel(layout);
    this.source = this.kernel.picture(this.sources);
    this.target = this.kernel.picture(this.targets);
  }

  /** @param stride samples from one row of the target to the next */
  private resamplePlane(
    plane: number,
    axes: PaneTable["axes"],
    from: readonly PlaneAt[],
    to: number,
    size: Size,
    stride = size.width,
  ): void {
    const { at, size: source } = from[plane]!;
    const [x, y] = plane === 0 ? [axes.lumaX, axes.lumaY] : [axes.chromaX, axes.chromaY];
    this.kernel.resample(
      at + y.first * source.width * this.sampleBytes,
      source.width,
      to,
      stride,
      size.width,
      size.height,
      x.first,
      x.used,
      x.starts,
      x.weights,
      x.taps,
      y.starts,
      y.weights,
      y.taps,
      this.row,
    );
  }

  /** Resamples a whole picture. */
  private resample(table: Table, source: Box, from: readonly PlaneAt[], to: readonly PlaneAt[]): void {
    fillTable(table, this.kernel.buffer, { source, target: wholeOf(to[0]!.size) }, from, to);
    for (const [plane, { at, size }] of to.entries()) this.resamplePlane(plane, table.axes, from, at, size);
  }

  /** Makes a pane and lays it over the rest. */
  private layOver(table: Table, pane: Pane): void {
    fillTable(table, this.kernel.buffer, pane, this.sources, this.targets);
    const masks = pane.edge && !isPlain(pane.edge) ? this.masksOf(table, { ...pane, edge: pane.edge }) : null;
    // A pane that begins and ends with chroma samples needs no blending.
    const { x: left, y: top, width, height } = pane.target;
    const isOnSamples = !masks && [left, top, width, height].every((side) => side % 2 === 0) && left >= 0 && top >= 0;
    this.kernel.planes(this.targets).forEach((frame, plane) => {
      const [x, y] = extentsIn(this.targets, pane.target, plane);
      if (x.count === 0 || y.count === 0) return;
      if (isOnSamples) {
        const { at, size } = this.targets[plane]!;
        const to = at + (y.from * size.width + x.from) * this.sampleBytes;
        return this.resamplePlane(plane, table.axes, this.sources, to, { width: x.count, height: y.count }, size.width);
      }
      this.resamplePlane(plane, table.axes, this.sources, this.scratch, { width: x.count, height: y.count });
      const made = this.kernel.samples(this.scratch, x.count * y.count);
      if (!masks) return layOver(frame, made, x, y);
      const scale = Math.min(plane, 1);
      if (masks.shadow) darken(frame, masks.shadow[scale]!, ZERO[plane]!);
      layOverMasked(frame, made, x, y, masks.cover[scale]!);
    });
  }

  /** Made once for a pane that does not move. */
  private masksOf(table: Table, pane: Pane & Required<Pick<Pane, "edge">>): EdgeMasks {
    const { look, corner } = pane.edge;
    const { x, y, width, height } = pane.target;
    const made = [look, corner, x, y, width, height].join();
    if (table.masks?.key !== made) table.masks = { key: made, masks: edgeMasks(pane, this.output) };
    return table.masks.masks;
  }

  /** Fills the frame with the backdrop behind a pane. */
  private paint({ look, source, own }: NonNullable<Composition["backdrop"]>, { source: part, target }: Pane): void {
    switch (look.kind) {
      case "colour":
        return paintColour(this.kernel.planes(this.targets), look.colour);
      case "gradient":
        return paintGradient(this.kernel.planes(this.targets), look);
      case "mirror":
        this.layOver(this.tables[0]!, { source: part, target });
        return this.kernel.planes(this.targets).forEach((plane, i) => {
          paintMirrored(plane, scaleBox(target, i === 0 ? 1 : 0.5), look.darkness, ZERO[i]!);
        });
      case "blur":
        this.resample(this.reducing, source, this.sources, this.reduced);
        softened(this.kernel.planes(this.reduced), look);
        return this.resample(this.enlarging, wholeOf(this.reduced[0]!.size), this.reduced, this.targets);
      case "picture":
        paintColour(this.kernel.planes(this.targets), look.colour);
        return this.lay(
          { source: wholeOf(look.picture), target: pictureBox(look, this.output), ...(own ? { own } : {}) },
          look.colour,
        );
      default:
        return assertNever(look);
    }
  }

  /** Lays one of the editor's own pictures over the rest; a missing one leaves it. */
  private lay(pane: Pane, colour: string): void {
    this.blend(this.pictures.planes(pane, colour), 1);
  }

  /** Makes the frame of a composition from `source`, in `target`. */
  compose(composition: Composition): void {
    const { panes, backdrop } = composition;
    if (panes.length > this.tables.length) throw new Error("there are more panes than were to be expected");
    // Everything behind a pane that covers the whole frame is hidden.
    const covering = panes.findLastIndex((pane) => coversAll(composition, pane));
    if (covering < 0 && backdrop) this.paint(backdrop, panes[0]!);
    else if (covering < 0) paintColour(this.kernel.planes(this.targets), BLACK);
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
   * @param opacity 0 to 1
   * @param by offset in even pixels; what leaves the frame above or below is cut off
   */
  blend(planes: readonly OverlayPlane[], opacity: number, by: Point = { x: 0, y: 0 }, mode: Blend = "normal"): void {
    if (planes.length === 0) return;
    if (mode !== "normal") return blendColours(this.kernel.planes(this.targets), planes, mode, opacity, by);
    planes.forEach(({ x, y, stride, height, made, cover }, plane) => {
      const { at, size } = this.targets[plane]!;
      const subsampling = plane === 0 ? 1 : 2;
      const top = y + by.y / subsampling;
      const [first, last] = [Math.max(0, -top), Math.min(height, size.height - top)];
      if (last <= first) return;
      this.kernel.bytes(this.scratch, (last - first) * stride).set(made.subarray(first * stride, last * stride));
      this.kernel.bytes(this.cover, (last - first) * stride).set(cover.subarray(first * stride, last * stride));
      this.kernel.blend(
        at + ((top + first) * size.width + x + by.x / subsampling) * this.sampleBytes,
        size.width,
        this.scratch,
        this.cover,
        stride,
        last - first,
        Math.round(255 * opacity),
      );
    });
  }
}
