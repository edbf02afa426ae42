/** Ranges of a shot in which a problem lasts longer than its limit. */
import { type FrameRange, framesOf, framesPerSecond, type Rate, rangeLength } from "../time/rate";
import { bridged, rangesWhere } from "../time/ranges";
import { type FlagKind, type Flag, severityOf } from "./flag";

/** Seconds without the problem that do not end its range. */
const BRIDGE_SECONDS = 0.2;

/** A problem to look for. */
export interface Trouble {
  kind: FlagKind;
  /** Seconds of it that are tolerated. */
  limit: number;
  /** How much is wrong at a frame: 0 for nothing, 1 for the worst. */
  at: (frame: number) => number;
  /** The reason, by duration and worst severity. */
  text: (seconds: number, worst: number) => string;
}

/**
 * A flag for each range with the problem.
 * @param kept the ranges of the shot that are shown; a flag's range does not continue from one to the next
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
