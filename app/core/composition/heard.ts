/** What is heard in a version: the film, and pictures of its panes that have a sound. */
import { type FrameRange } from "../time/rate";
import { clipRanges } from "../time/ranges";
import type { LaidOut } from "./layout";
import type { Picture, Playback } from "./picture";

/** What is heard beside the film. */
export interface OwnSound {
  picture: Picture;
  playback: Playback;
  /** Seconds for which it has been played when the range begins. */
  played: number;
}

/** What is heard in a range of the film. */
export interface HeardIn {
  range: FrameRange;
  /** Whether the film is. */
  film: boolean;
  own: OwnSound[];
}

/**
 * What is heard in what is kept of a film's shots, range by range.
 *
 * @param fps frames per second of the film
 * @returns null where it is the film alone, everywhere
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
