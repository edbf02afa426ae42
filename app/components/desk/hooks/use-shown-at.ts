import { useCallback, useMemo } from "react";
import type { ShownAt } from "~/core/composition/composition";
import { withLayers } from "~/core/composition/shown";
import type { FilmState, VersionState } from "~/core/version/film-state";
import { keptRanges } from "~/core/version/trim";
import { type FrameRange, framesPerSecond } from "~/core/time/rate";
import { useCaptionLayers } from "./use-caption-layers";
import { useLayerFonts } from "./use-layer-fonts";
import { type LedAt, shownOfShots } from "../model/windows";
import type { DeskFilm, DeskShot } from "../model/desk-types";

interface VersionShown {
  /** The ranges of the film that the version shows. */
  kept: readonly FrameRange[];
  /** Place of each caption in the safe area by its id, 1 at its foot. */
  captionPlaces: ReadonlyMap<string, number>;
  /** Adds the version's layers and captions to what is shown. */
  layered: (shown: ShownAt) => ShownAt;
  shownAt: ShownAt;
}

/** What a version shows of a film whose shots are framed, with its layers and captions. */
export function useShownAt(
  { picture, rate, frames }: Pick<DeskFilm, "picture" | "rate" | "frames">,
  { shots: cut, clips, captions: said }: Pick<FilmState, "shots" | "clips" | "captions">,
  version: VersionState,
  shots: readonly DeskShot[],
  ledAt?: LedAt,
): VersionShown {
  const { trim, safeArea, width, height } = version;
  const kept = useMemo(() => keptRanges(trim, frames, { shots: cut, clips }), [trim, frames, cut, clips]);
  const own = useLayerFonts(version.layers);
  const captions = useCaptionLayers({ picture, rate }, said, version, shots);
  const layers = useMemo(() => [...own, ...captions.layers], [own, captions.layers]);
  const layered = useCallback(
    (shown: ShownAt) =>
      withLayers(shown, { layers, safeArea, size: { width, height }, kept, fps: framesPerSecond(rate) }),
    [layers, safeArea, width, height, kept, rate],
  );
  const shownAt = useMemo(
    () => layered((frame) => shownOfShots(shots, frame, picture, version, ledAt)),
    [layered, shots, picture, version, ledAt],
  );
  return { kept, layered, shownAt, captionPlaces: captions.places };
}
