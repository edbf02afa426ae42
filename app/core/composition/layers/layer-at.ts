/** The layers at a frame, and how far each has appeared or disappeared. */
import { clamped } from "../../numbers/clamped";
import type { Point } from "../../geometry/box";
import { type FrameRange, inRange } from "../../time/rate";
import { frameAfter, type PictureAt } from "../picture";
import type { Layer, Passage } from "./layer";

/** Duration of a layer's entrance or exit. */
const PASSAGE_SECONDS = 0.4;
/** Distance of a slide, as a share of the frame's height. */
const SLIDE_SHARE = 0.06;

/** A layer at a frame. */
export interface LayerAt {
  layer: Layer;
  /** 0 to 1. */
  opacity: number;
  /** Offset from its place, as shares of the frame's sides. */
  shift: Point;
  /** Picture of a moving picture layer. */
  picture?: PictureAt;
}

/** Eases in and out (smoothstep). */
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
 * The layers visible at a frame, from back to front.
 * @param whole from the first frame shown to the last: the range of a layer without one of its own
 */
export function layersAt(layers: readonly Layer[], frame: number, whole: FrameRange, fps: number): LayerAt[] {
  return layers.flatMap((layer) => {
    const range = layer.range ?? whole;
    if (!inRange(frame, range)) return [];
    const share = (frames: number) => frames / (PASSAGE_SECONDS * fps);
    // Half a frame later, so that something is visible at the first.
    const comes = passing(layer.arrives, share(frame - range.start + 0.5));
    const goes = passing(layer.leaves, share(range.end - frame - 0.5));
    const opacity = (layer.opacity / 100) * comes.opacity * goes.opacity;
    const moves = movingIn(layer, (frame - range.start) / fps);
    return opacity > 0 ? [{ layer, opacity, shift: { x: 0, y: comes.shift - goes.shift }, ...moves }] : [];
  });
}
