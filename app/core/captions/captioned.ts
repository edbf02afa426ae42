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

/** What is said in a version, and what it is shown in. */
export interface Captioned {
  captions: readonly Caption[];
  settings: CaptionSettings;
  /** What lies above the picture beside them. */
  layers: readonly Layer[];
  size: Size;
  safeArea: SafeArea | null;
  shots: readonly (FrameRange & { tracks: readonly Track[] })[];
  /** What the version shows, without its layers. */
  shown: ShownAt;
  fps: number;
}

/** How far down the safe area of a version each of its captions stands, by its id. */
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
 * The layers of a version with its captions in front of them, where they are drawn on the picture.
 *
 * @param places how far down the safe area each stands, where that is known
 */
export function withCaptions(captioned: Captioned, places?: ReadonlyMap<string, number>): readonly Layer[] {
  const { captions, settings, layers, size, safeArea } = captioned;
  if (!settings.burnt || captions.length === 0) return layers;
  return [
    ...layers,
    ...captionLayers(captions, settings, places ?? placesOf(captioned), size, safeArea ?? USUAL_SAFE_AREA),
  ];
}
