import { decideTransitions, weighTransitions } from "~/core/shots/detect-transitions";
import { type FrameFeatures, frameFeatures } from "~/core/shots/frame-features";
import type { Transition } from "~/core/shots/transition";
import { ActiveAreas } from "./active-areas.server";
import { decodeReduced } from "~/media/small-frames.server";
import type { FilmFile } from "~/media/film-file";

export interface FindCutsOptions {
  /** Sensitivity to transitions, 0 to 100. */
  sensitivity?: number;
  /** 0 to 1 */
  onProgress?: (share: number) => void;
  signal?: AbortSignal;
}

/**
 * Finds the transitions of a film and nothing else.
 * @throws FilmError if the film cannot be decoded to its end; CancelledError if the signal is aborted
 */
export async function findCuts(
  film: FilmFile,
  { sensitivity, onProgress, signal }: FindCutsOptions = {},
): Promise<Transition[]> {
  const features: FrameFeatures[] = [];
  const area = await new ActiveAreas(film, signal).inFilm();
  for await (const reduced of decodeReduced(film, { area, signal })) {
    features.push(frameFeatures(reduced));
    onProgress?.(features.length / film.info.frames);
  }
  return decideTransitions(weighTransitions(features, film.info.rate), sensitivity);
}
