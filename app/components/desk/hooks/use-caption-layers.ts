import { useDeferredValue, useMemo } from "react";
import type { Caption } from "~/core/captions/caption";
import { captionLayers } from "~/core/captions/caption-layers";
import { placesOf } from "~/core/captions/captioned";
import { type Layer, newText } from "~/core/composition/layers/layer";
import { USUAL_SAFE_AREA } from "~/core/composition/layers/safe-area";
import type { VersionState } from "~/core/version/film-state";
import { framesPerSecond } from "~/core/time/rate";
import { useLayerFonts } from "./use-layer-fonts";
import { shownOfShots } from "../model/windows";
import type { DeskFilm, DeskShot } from "../model/desk-types";

const NO_LAYERS: readonly Layer[] = [];
const NO_SHOTS: readonly DeskShot[] = [];

/** Captions as a version shows them: their layers, and the place of each in the safe area by its id, 1 at its foot. */
export interface ShownCaptions {
  layers: readonly Layer[];
  places: ReadonlyMap<string, number>;
}

/** Lays out the captions of a version on the desk, as the render does. */
export function useCaptionLayers(
  { picture, rate }: Pick<DeskFilm, "picture" | "rate">,
  captions: readonly Caption[],
  version: VersionState,
  shots: readonly DeskShot[],
): ShownCaptions {
  const { width, height, safeArea, captions: settings, layers: own } = version;
  // While a path is laid again during a drag, captions may lag behind it; without captions there is nothing to defer.
  const calm = useDeferredValue(captions.length > 0 ? shots : NO_SHOTS);
  const size = useMemo(() => ({ width, height }), [width, height]);
  const places = useMemo(
    () =>
      placesOf({
        captions,
        settings,
        layers: own,
        size,
        safeArea,
        shots: calm,
        fps: framesPerSecond(rate),
        shown: (frame) => shownOfShots(calm, frame, picture, size),
      }),
    [captions, settings, own, size, safeArea, calm, picture, rate],
  );
  const letters = useMemo(
    () => [...new Set(captions.flatMap(({ text, speaker }) => [...text, ...(speaker ?? "")]))].join(""),
    [captions],
  );
  const { family, weight } = settings;
  // Fonts are loaded for all characters in use, not caption by caption.
  const sample = useMemo<readonly Layer[]>(
    () => (letters === "" ? NO_LAYERS : [{ ...newText("letters", letters), family, weight }]),
    [letters, family, weight],
  );
  // A new list when fonts have loaded: earlier drawings lack them.
  const fonts = useLayerFonts(sample);
  const layers = useMemo(
    () =>
      settings.burnt && fonts.length > 0
        ? captionLayers(captions, settings, places, size, safeArea ?? USUAL_SAFE_AREA)
        : NO_LAYERS,
    [captions, settings, places, size, safeArea, fonts],
  );
  return useMemo(() => ({ layers, places }), [layers, places]);
}
