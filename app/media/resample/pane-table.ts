/** The weights of a pane, kept in the kernel's memory for as long as it does not move. */
import type { Pane } from "~/core/composition/composition";
import { type Box, sameBox, type Size } from "~/core/geometry/box";
import { type Extent, extentOf } from "./blend";
import type { Layout, PlaneAt } from "./kernel.server";
import { fillWeights, tapsFor } from "./weights";

interface Axis {
  starts: number;
  weights: number;
  /** Weights per sample, and capacity. */
  taps: number;
  mostTaps: number;
  /** The source samples that take part; starts count from the first of them. */
  first: number;
  used: number;
}

export interface PaneTable {
  axes: Record<"lumaX" | "lumaY" | "chromaX" | "chromaY", Axis>;
  /** The pane that they are filled for. */
  pane: Pick<Pane, "source" | "target"> | null;
}

/** Allocates tables for the weights of panes up to the size of a frame, with some weights per sample. */
export function takeTable(layout: Layout, { width, height }: Size, taps: number): PaneTable {
  const axis = (length: number): Axis => ({
    starts: layout.take(length * 4),
    weights: layout.take(length * taps * 2),
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

/** The pixels of each plane that a box of a picture touches. */
export function extentsIn(planes: readonly PlaneAt[], box: Box, plane: number): [Extent, Extent] {
  const { width, height } = planes[plane]!.size;
  const subsampling = plane === 0 ? 1 : 2;
  return [
    extentOf(box.x / subsampling, box.width / subsampling, width),
    extentOf(box.y / subsampling, box.height / subsampling, height),
  ];
}

function fillAxis(
  buffer: ArrayBuffer,
  axis: Axis,
  { count: length }: Extent,
  { start, step, length: sourceLength }: { start: number; step: number; length: number },
): void {
  if (length === 0) return;
  axis.taps = tapsFor(step);
  const starts = new Int32Array(buffer, axis.starts, length);
  const weights = new Int16Array(buffer, axis.weights, length * axis.taps);
  fillWeights(starts, weights, axis.taps, start, step, sourceLength);
  axis.first = starts[0]!;
  axis.used = starts[length - 1]! + axis.taps - axis.first;
  for (let i = 0; i < length; i++) starts[i]! -= axis.first;
}

/**
 * Fills a table for the pixels that a pane touches, unless it is filled for that pane already.
 * @param buffer the kernel's memory
 */
export function fillTable(
  table: PaneTable,
  buffer: ArrayBuffer,
  { source, target }: Pick<Pane, "source" | "target">,
  from: readonly PlaneAt[],
  to: readonly PlaneAt[],
): void {
  if (table.pane && sameBox(table.pane.source, source) && sameBox(table.pane.target, target)) return;
  const { axes } = table;
  const [luma, chroma] = from.map(({ size }) => size) as [Size, Size, Size];
  const step = { x: source.width / target.width, y: source.height / target.height };
  if (tapsFor(step.x) > axes.lumaX.mostTaps || tapsFor(step.y) > axes.lumaY.mostTaps) {
    throw new Error("a pane shows more of the source than can be made so small");
  }
  const fill = (axis: Axis, extent: Extent, start: number, by: number, length: number) =>
    fillAxis(buffer, axis, extent, { start, step: by, length: length });
  const [x, y] = extentsIn(to, target, 0);
  fill(axes.lumaX, x, source.x + (x.from - target.x) * step.x, step.x, luma.width);
  fill(axes.lumaY, y, source.y + (y.from - target.y) * step.y, step.y, luma.height);
  // Chroma is sited left (MPEG-2 style): on the even luma columns, and between two luma rows.
  const [cx, cy] = extentsIn(to, target, 1);
  const left = source.x + (2 * cx.from + 0.5 - target.x) * step.x;
  const top = source.y + (2 * cy.from - target.y) * step.y;
  fill(axes.chromaX, cx, left / 2 + 0.25 - 0.5 * step.x, step.x, chroma.width);
  fill(axes.chromaY, cy, top / 2, step.y, chroma.height);
  table.pane = { source: { ...source }, target: { ...target } };
}
