import { Refusal } from "../basics/refusal";
import type { Transition } from "../shots/transition";
import type { Clock } from "../time/timecode";

/** The cuts of a film, as open formats store them. */
export interface CutList {
  /** Title of the film. */
  title: string;
  /** Timecode of its frames. */
  clock: Clock;
  /** Length of the film in frames. */
  frames: number;
  /** In order; each lies inside the film. */
  transitions: readonly Transition[];
}

/** A file that could not be read in its format; the message says where and why. */
export class FormatError extends Refusal {
  override name = "FormatError";
}

/**
 * Checks imported cuts against the film.
 * @throws FormatError if they are out of order or outside the film
 */
export function requireWithin(transitions: readonly Transition[], frames: number): void {
  let last = 0;
  for (const { frame, range } of transitions) {
    if (frame <= last) throw new FormatError(`two cuts fall on frame ${frame}, or they are out of order`);
    if (frame >= frames || range.end > frames) {
      throw new FormatError(
        `a cut at frame ${frame} lies beyond the film's ${frames} frames; is this the list of another film, or of another frame rate?`,
      );
    }
    last = frame;
  }
}
