import type { ShownAt } from "../composition/composition";
import type { Layer } from "../composition/layers/layer";
import { type SafeArea, USUAL_SAFE_AREA } from "../composition/layers/safe-area";
import type { Size } from "../geometry/box";
import type { Track } from "../subjects/tracking/track";
import type { FrameRange } from "../time/rate";
import type { Caption } from "./caption";
import { captionLayers } from "./caption-layers";
import type { CaptionSettings } from "./caption-settings";
import { layerBoxesIn, obstaclesIn, placeCaptions } from "./place-captions";

/** Captions, and what they are shown in. */
export interface Captioned {
  captions: readonly Caption[];
  settings: CaptionSettings;
  /** The other layers above the picture. */
  layers: readonly Layer[];
  size: Size;
  safeArea: SafeArea | null;
  shots: readonly (FrameRange & { tracks: readonly Track[] })[];
  /** What the version shows, without its layers. */
  shown: ShownAt;
  fps: number;
}

/** Place of each caption in a version's safe area by its id, 1 at its foot. */
export function placesOf({
  captions,
  settings,
  layers,
  size,
  safeArea,
  shots,
  shown,
  fps,
}: Captioned): Map<string, number> {
  const safe = safeArea ?? USUAL_SAFE_AREA;
  const [inFilm, above] = [obstaclesIn(shots, shown), layerBoxesIn(layers, size, safe)];
  const obstaclesAt = (frame: number) => [...inFilm(frame), ...above(frame)];
  return placeCaptions(captions, settings, { frame: size, safe, fps, obstaclesAt });
}

/**
 * A version's layers with its captions in front, where they are burnt in.
 * @param places of the captions in the safe area, where known
 */
export function withCaptions(captioned: Captioned, places?: ReadonlyMap<string, number>): readonly Layer[] {
  const { captions, settings, layers, size, safeArea } = captioned;
  if (!settings.burnt || captions.length === 0) return layers;
  return [
    ...layers,
    ...captionLayers(captions, settings, places ?? placesOf(captioned), size, safeArea ?? USUAL_SAFE_AREA),
  ];
}
