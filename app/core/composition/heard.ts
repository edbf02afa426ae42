/** The sound of a version: the film's, and that of moving pictures in its panes. */
import { type FrameRange } from "../time/rate";
import { clipRanges } from "../time/ranges";
import type { LaidOut } from "./layout";
import type { Picture, Playback } from "./picture";

/** Sound beside the film's. */
export interface OwnSound {
  picture: Picture;
  playback: Playback;
  /** Seconds for which it has been playing when the range begins. */
  played: number;
}

/** The sound in a range of the film. */
export interface HeardIn {
  range: FrameRange;
  /** Whether the film is heard. */
  film: boolean;
  own: OwnSound[];
}

/**
 * The sound of the kept ranges of a film's shots, range by range.
 * @param fps frames per second of the film
 * @returns null where it is the film alone throughout
 */
export function heardIn(
  shots: readonly { range: FrameRange; laidOut: LaidOut }[],
  kept: readonly FrameRange[],
  fps: number,
): HeardIn[] | null {
  const ranges = shots.flatMap(({ range: shot, laidOut }) =>
    clipRanges(kept, shot).map(({ start, end }): HeardIn => {
      const played = (start - shot.start) / fps;
      const own = (laidOut.own ?? []).flatMap((pane) =>
        pane?.sounds && pane.picture.moving?.sound ? [{ picture: pane.picture, playback: pane.playback, played }] : [],
      );
      return { range: { start, end }, film: !laidOut.muted, own };
    }),
  );
  return ranges.some(({ film, own }) => !film || own.length > 0) ? ranges : null;
}
