import type { ShownAt } from "../composition/composition";
import type { Layer } from "../composition/layers/layer";
import { type SafeArea, USUAL_SAFE_AREA } from "../composition/layers/safe-area";
import type { Size } from "../geometry/box";
import type { Track } from "../subjects/tracking/track";
import type { FrameRange } from "../time/rate";
import type { Caption } from "./caption";
import { captionLayers } from "./caption-layers";
import type { CaptionSettings } from "./caption-settings";
import { obstaclesIn, placeCaptions } from "./place-captions";

/** What is said in a version, and what it is shown in. */
export interface Captioned {
  captions: readonly Caption[];
  settings: CaptionSettings;
  size: Size;
  safeArea: SafeArea | null;
  shots: readonly (FrameRange & { tracks: readonly Track[] })[];
  /** What the version shows, without its layers. */
  shown: ShownAt;
  fps: number;
}

/** How far down the safe area of a version each of its captions stands, by its id. */
export const placesOf = ({ captions, settings, size, safeArea, shots, shown, fps }: Captioned): Map<string, number> =>
  placeCaptions(captions, settings, {
    ...{ frame: size, safe: safeArea ?? USUAL_SAFE_AREA, fps },
    obstaclesAt: obstaclesIn(shots, shown),
  });

/** The layers of a version with its captions in front of them, where they are drawn on the picture. */
export function withCaptions(
  layers: readonly Layer[],
  captioned: Captioned,
  places?: ReadonlyMap<string, number>,
): readonly Layer[] {
  const { captions, settings, size, safeArea } = captioned;
  if (!settings.burnt || captions.length === 0) return layers;
  const { left, right } = safeArea ?? USUAL_SAFE_AREA;
  const at = places ?? placesOf(captioned);
  return [...layers, ...captionLayers(captions, settings, at, size, 1 - left - right)];
}
