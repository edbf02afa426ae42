import type { Box } from "~/core/geometry/box";
import { type TransitionCandidate, weighTransitions } from "~/core/shots/detect-transitions";
import { type FrameFeatures, frameFeatures } from "~/core/shots/frame-features";
import { shiftTransition } from "~/core/shots/transition";
import { type FrameRange, framesPerSecond } from "~/core/time/rate";
import type { FilmFile } from "~/media/film-file";
import { decodeReduced } from "~/media/small-frames.server";

/** Seconds that are looked back, farther each time; a shot that is longer is not looked for to its beginning. */
const LOOK_BACK_SECONDS = [15, 60, 120];
/** Seconds after the frame that are looked at as well, so that a cut right before it has something to be weighed against. */
const LOOK_ON_SECONDS = 2;
/** Frames at the beginning of what was looked at that have too little before them. */
const UNSURE_SECONDS = 1;
/** What is taken for a cut here is never asked about again. */
const SURELY = 0.7;

/**
 * Finds the last hard cut before a frame, from which on the shots of a film can be found as if it began there.
 *
 * @param bounds where it may be
 * @param of the part of the picture that cuts are told from; all of it if null
 * @returns null if there is none within the last two minutes
 * @throws FilmError if the film cannot be decoded; CancelledError if the signal is aborted
 */
export async function findCutBefore(
  film: FilmFile,
  bounds: FrameRange,
  frame: number,
  of: Box | null,
  signal?: AbortSignal,
): Promise<TransitionCandidate | null> {
  const { rate } = film.info;
  const fps = framesPerSecond(rate);
  const end = Math.min(bounds.end, frame + Math.round(LOOK_ON_SECONDS * fps));
  for (const back of LOOK_BACK_SECONDS) {
    const start = Math.max(bounds.start, frame - Math.round(back * fps));
    const features: FrameFeatures[] = [];
    for await (const reduced of decodeReduced(film, { of, range: { start, end }, signal })) {
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
