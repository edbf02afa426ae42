/** The composition of a target frame: one description for the desk, small pictures, checks and the render. */
import { type Box, boxCentre, boxContains, mapBox, scaleBox, type Size, wholeOf } from "../geometry/box";
import { aspectRatio, type CropWindow, windowBox } from "../geometry/crop-window";
import type { Edge } from "./edge";
import type { LayerGround } from "./layers/draw-layer";
import type { LayerAt } from "./layers/layer-at";
import { covering, type LaidOut } from "./layout";
import { filledPart, frameAfter, type PictureAt } from "./picture";
import type { PanePicture } from "./stack";

/** A box of the source shown in a box of the target; both may lie between pixels. */
export interface Pane {
  /** In pixels of the source's picture. */
  source: Box;
  /** In pixels of the target. */
  target: Box;
  /** Its edge; plain if left out. */
  edge?: Edge;
  /** Shown instead of the film; the source box is then in its pixels. */
  own?: PictureAt;
}

/** The time of a frame, for moving pictures: seconds since the start of the film, and of the shot. */
export interface Moment {
  film: number;
  shot: number;
}
const AT_FIRST: Moment = { film: 0, shot: 0 };

export interface Composition {
  /** Size of the frame. */
  size: Size;
  /** The backdrop, and the box of the source that it is made from; null where the panes cover the whole frame. */
  backdrop: (NonNullable<LaidOut["backdrop"]> & { own?: PictureAt }) | null;
  /** From back to front. */
  panes: readonly Pane[];
  /** Layers above the panes, from back to front, and what they are placed in; null without layers. */
  layers: { ground: LayerGround; at: readonly LayerAt[] } | null;
}

/** What a version shows at each frame that it shows. */
export type ShownAt = (frame: number) => Composition;

/** The part of one of the editor's own pictures that is shown in a pane. */
function paneOfOwn(
  { picture, playback, zoom, x, y, sounds }: PanePicture,
  target: Box,
  pane: number,
  seconds: number,
): Pane {
  const frame = frameAfter(picture, playback, seconds);
  const own = { picture, playback, frame, sounds, slot: `pane ${pane + 1}` };
  return { source: filledPart(picture, target, zoom, { x, y }), target, own };
}

/** The backdrop at a moment: a moving picture continues from shot to shot. */
function behind(backdrop: LaidOut["backdrop"], { film }: Moment): Composition["backdrop"] {
  if (backdrop?.look.kind !== "picture") return backdrop;
  const { picture, playback } = backdrop.look;
  return { ...backdrop, own: { picture, playback, frame: frameAfter(picture, playback, film), slot: "backdrop" } };
}

/** Composes the windows of a layout's panes over its backdrop, one window for each pane, at a moment. */
export const compose = (
  windows: readonly CropWindow[],
  { panes, own, backdrop, edge }: LaidOut,
  size: Size,
  moment: Moment = AT_FIRST,
): Composition => ({
  size,
  backdrop: behind(backdrop, moment),
  panes: panes.map((target, i) => {
    const shown = own?.[i];
    if (shown) return paneOfOwn(shown, target, i, moment.shot);
    return { source: windowBox(windows[i]!, aspectRatio(target)), target, ...(edge ? { edge } : {}) };
  }),
  layers: null,
});

/** The panes that show the film. */
export const filmPanes = ({ panes }: Pick<Composition, "panes">): Pane[] => panes.filter(({ own }) => !own);

/** The crop window fills the frame: a single pane. */
export const fill = (window: CropWindow, size: Size): Composition => compose([window], covering(size), size);

/** A part of the source alone, as a frame of its size. */
export const cutOut = (source: Box): Composition => {
  const size = { width: source.width, height: source.height };
  return { size, backdrop: null, panes: [{ source, target: wholeOf(size) }], layers: null };
};

/** The same composition at another size, such as that of a small picture. */
export function inSize({ size, panes, ...rest }: Composition, wanted: Size): Composition {
  const scaled = (box: Box) => mapBox(box, wholeOf(size), wholeOf(wanted));
  return { ...rest, size: wanted, panes: panes.map((pane) => ({ ...pane, target: scaled(pane.target) })) };
}

/** The same composition for a source scaled by a factor, such as a proxy. */
export const fromScaled = ({ panes, backdrop, ...rest }: Composition, factor: number): Composition => ({
  ...rest,
  backdrop: backdrop && { ...backdrop, source: scaleBox(backdrop.source, factor) },
  panes: panes.map((pane) => (pane.own ? pane : { ...pane, source: scaleBox(pane.source, factor) })),
});

/** Whether a box of the source is wholly visible, within a tolerance in its pixels. */
export const showsWhole = (composition: Composition, box: Box, tolerance = 0): boolean =>
  filmPanes(composition).some(({ source }) => boxContains(source, box, tolerance));

/** Whether a pane covers the whole frame by itself. */
export const coversAll = ({ size }: Composition, { target }: Pane): boolean => boxContains(target, wholeOf(size));

/** Place of a box of the source in the frame, in pixels of the frame; null where its centre is not shown. */
export function inFrame(box: Box, composition: Composition): Box | null {
  const pane = filmPanes(composition).find(({ source }) =>
    boxContains(source, { ...boxCentre(box), width: 0, height: 0 }),
  );
  return pane ? mapBox(box, pane.source, pane.target) : null;
}
