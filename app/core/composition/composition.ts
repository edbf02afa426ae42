/** What a target frame is made of: one description for the desk, small pictures, checks and the render. */
import { type Box, boxContains, scaleBox, type Size, wholeOf } from "../geometry/box";
import { aspectRatio, type CropWindow, windowBox } from "../geometry/crop-window";
import type { Edge } from "./edge";
import type { LayerGround } from "./layers/draw-layer";
import type { LayerAt } from "./layers/layer-at";
import { covering, type LaidOut } from "./layout";

/** A box of the source that is shown in a box of the target; both may lie between pixels. */
export interface Pane {
  /** In pixels of the source's picture. */
  source: Box;
  /** In pixels of the target. */
  target: Box;
  /** How its border looks; as it is if left out. */
  edge?: Edge;
}

export interface Composition {
  /** Size of the frame. */
  size: Size;
  /** What lies behind the panes, and the box of the source that it is made of; null where they cover all of the frame. */
  backdrop: LaidOut["backdrop"];
  /** From back to front. */
  panes: readonly Pane[];
  /** What lies above the panes, from back to front, and what it is placed in; null where nothing does. */
  layers: { ground: LayerGround; at: readonly LayerAt[] } | null;
}

/** What a version shows at each frame of a film that it shows at all. */
export type ShownAt = (frame: number) => Composition;

/** Windows of the source in the panes of a layout, before its backdrop: one for each. */
export const compose = (
  windows: readonly CropWindow[],
  { panes, backdrop, edge }: LaidOut,
  size: Size,
): Composition => ({
  size,
  backdrop,
  panes: panes.map((target, i) => ({
    source: windowBox(windows[i]!, aspectRatio(target)),
    target,
    ...(edge ? { edge } : {}),
  })),
  layers: null,
});

/** The crop window fills the frame: one pane that covers it. */
export const fill = (window: CropWindow, size: Size): Composition => compose([window], covering(size), size);

/** A part of the source, and nothing else, as a frame of its size. */
export const cutOut = (source: Box): Composition => {
  const size = { width: source.width, height: source.height };
  return { size, backdrop: null, panes: [{ source, target: wholeOf(size) }], layers: null };
};

/** The same frame in another size, such as that of a small picture. */
export function inSize({ size, panes, ...rest }: Composition, wanted: Size): Composition {
  const across = wanted.width / size.width;
  const down = wanted.height / size.height;
  const scaled = ({ x, y, width, height }: Box): Box => ({
    x: x * across,
    y: y * down,
    width: width * across,
    height: height * down,
  });
  return { ...rest, size: wanted, panes: panes.map((pane) => ({ ...pane, target: scaled(pane.target) })) };
}

/** The same frame made from a source that is so many times as large, such as a light copy. */
export const fromScaled = ({ panes, backdrop, ...rest }: Composition, factor: number): Composition => ({
  ...rest,
  backdrop: backdrop && { ...backdrop, source: scaleBox(backdrop.source, factor) },
  panes: panes.map((pane) => ({ ...pane, source: scaleBox(pane.source, factor) })),
});

/** Whether a box of the source is to be seen whole, give or take so many of its pixels. */
export const showsWhole = ({ panes }: Composition, box: Box, tolerance = 0): boolean =>
  panes.some(({ source }) => boxContains(source, box, tolerance));

/** Whether a pane alone covers all of the frame. */
export const coversAll = ({ size }: Composition, { target }: Pane): boolean => boxContains(target, wholeOf(size));
