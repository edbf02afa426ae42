/** Ranges of a shot in which something is wrong for longer than may be. */
import { type FrameRange, framesOf, framesPerSecond, type Rate, rangeLength } from "../time/rate";
import { bridged, rangesWhere } from "../time/ranges";
import { type FlagKind, type Flag, severityOf } from "./flag";

/** Moments without the trouble that do not end a range of it, in seconds. */
const BRIDGE_SECONDS = 0.2;

/** What is looked for. */
export interface Trouble {
  kind: FlagKind;
  /** Seconds of it that are passed over. */
  limit: number;
  /** How much is wrong at a frame: 0 for nothing, 1 for as much as can be. */
  at: (frame: number) => number;
  /** The reason, by how long it lasts and how much is wrong at its worst. */
  text: (seconds: number, worst: number) => string;
}

/**
 * The ranges in which there is trouble, a look each.
 *
 * @param kept what of the shot is shown; a range does not go on from one part to the next
 */
export function troubleIn(kept: readonly FrameRange[], rate: Rate, { kind, limit, at, text }: Trouble): Flag[] {
  const fps = framesPerSecond(rate);
  const least = Math.max(1, limit * fps);
  return kept.flatMap((part) => {
    const depth = new Map<number, number>();
    const isWrong = (frame: number) => {
      const wrong = at(frame);
      depth.set(frame, wrong);
      return wrong > 0;
    };
    const ranges = bridged(rangesWhere(part, isWrong), Math.max(1, Math.round(BRIDGE_SECONDS * fps)));
    return ranges
      .filter((range) => rangeLength(range) >= least)
      .map((range): Flag => {
        const frame = framesOf(range).reduce((a, b) => (depth.get(b)! > depth.get(a)! ? b : a), range.start);
        const [worst, seconds] = [depth.get(frame)!, rangeLength(range) / fps];
        return { kind, range, frame, text: text(seconds, worst), severity: severityOf(kind, worst, seconds) };
      });
  });
}
