/** Which layers are there at a frame, and how far each has come or gone. */
import { clamped } from "../../numbers/clamped";
import type { Point } from "../../geometry/box";
import { type FrameRange, inRange } from "../../time/rate";
import { frameAfter, type PictureAt } from "../picture";
import type { Layer, Passage } from "./layer";

/** How long a layer takes to come or to go. */
const PASSAGE_SECONDS = 0.4;
/** How far it comes from when it slides in, as a share of the frame's height. */
const SLIDE_SHARE = 0.06;

/** A layer at a frame. */
export interface LayerAt {
  layer: Layer;
  /** 0 to 1. */
  opacity: number;
  /** How far it is from its place, as shares of the frame's sides. */
  shift: Point;
  /** Of a layer with a picture that moves. */
  picture?: PictureAt;
}

/** Slow at first and at last (smoothstep). */
const eased = (share: number): number => share * share * (3 - 2 * share);

const passing = (passage: Passage, share: number): { opacity: number; shift: number } => {
  if (passage === "cut") return { opacity: 1, shift: 0 };
  const gone = 1 - eased(clamped(share, 0, 1));
  return { opacity: 1 - gone, shift: passage === "slide" ? gone * SLIDE_SHARE : 0 };
};

function movingIn(layer: Layer, seconds: number): Pick<LayerAt, "picture"> {
  if (layer.kind !== "picture" || !layer.picture.moving) return {};
  const { id, picture, playback } = layer;
  return { picture: { picture, playback, frame: frameAfter(picture, playback, seconds), slot: `layer ${id}` } };
}

/**
 * The layers that are there at a frame, from back to front.
 *
 * @param whole from the first frame that is shown to the last: a layer without a range is there in all of it
 */
export function layersAt(layers: readonly Layer[], frame: number, whole: FrameRange, fps: number): LayerAt[] {
  return layers.flatMap((layer) => {
    const range = layer.range ?? whole;
    if (!inRange(frame, range)) return [];
    const share = (frames: number) => frames / (PASSAGE_SECONDS * fps);
    // Half a frame on, so that the first one has something to show.
    const comes = passing(layer.arrives, share(frame - range.start + 0.5));
    const goes = passing(layer.leaves, share(range.end - frame - 0.5));
    const opacity = (layer.opacity / 100) * comes.opacity * goes.opacity;
    const moves = movingIn(layer, (frame - range.start) / fps);
    return opacity > 0 ? [{ layer, opacity, shift: { x: 0, y: comes.shift - goes.shift }, ...moves }] : [];
  });
}
