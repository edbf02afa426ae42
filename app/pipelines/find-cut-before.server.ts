import type { Box } from "~/core/geometry/box";
import { type TransitionCandidate, weighTransitions } from "~/core/shots/detect-transitions";
import { type FrameFeatures, frameFeatures } from "~/core/shots/frame-features";
import { shiftTransition } from "~/core/shots/transition";
import { type FrameRange, framesPerSecond } from "~/core/time/rate";
import type { FilmFile } from "~/media/film-file";
import { decodeReduced } from "~/media/small-frames.server";

/** Seconds that are searched backwards, increasing with each attempt; longer shots are not searched to their start. */
const LOOK_BACK_SECONDS = [15, 60, 120];
/** Seconds after the frame that are examined as well, so that a cut right before it can be weighed. */
const LOOK_ON_SECONDS = 2;
/** Seconds at the start of the examined part with too little before them. */
const UNSURE_SECONDS = 1;
/** Strength that a cut needs here, since it is never reconsidered. */
const SURELY = 0.7;

/**
 * Finds the last hard cut before a frame, from which the shots of a film can be found as if it began there.
 * @param bounds where it may be
 * @param area the part of the picture in which cuts are detected; all of it if null
 * @returns null if there is none within the last two minutes
 * @throws FilmError if the film cannot be decoded; CancelledError if the signal is aborted
 */
export async function findCutBefore(
  film: FilmFile,
  bounds: FrameRange,
  frame: number,
  area: Box | null,
  signal?: AbortSignal,
): Promise<TransitionCandidate | null> {
  const { rate } = film.info;
  const fps = framesPerSecond(rate);
  const end = Math.min(bounds.end, frame + Math.round(LOOK_ON_SECONDS * fps));
  for (const back of LOOK_BACK_SECONDS) {
    const start = Math.max(bounds.start, frame - Math.round(back * fps));
    const features: FrameFeatures[] = [];
    for await (const reduced of decodeReduced(film, { area, range: { start, end }, signal })) {
      features.push(frameFeatures(reduced));
    }
    const cut = weighTransitions(features, rate)
      .map(({ transition, strength }) => ({ transition: shiftTransition(transition, start), strength }))
      .findLast(
        ({ transition, strength }) =>
          transition.kind === "cut" &&
          strength >= SURELY &&
          transition.frame <= frame &&
          transition.frame >= start + UNSURE_SECONDS * fps,
      );
    if (cut) return cut;
    if (start === bounds.start) return null;
  }
  return null;
}
