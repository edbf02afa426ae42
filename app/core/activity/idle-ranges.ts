/** Ranges that a film can do without: nothing is visible, or nothing moves and nobody speaks. */
import { voiced } from "../subjects/speaking/voice";
import { type FrameRange, framesPerSecond, type Rate } from "../time/rate";
import { bridged, rangesWhere, withoutRanges } from "../time/ranges";
import { type Activity, CHANGE_SECONDS, CHANGE_UNIT, CONTRAST_UNIT } from "./activity";

export type IdleKind =
  /** The picture is of one colour, mostly black. */
  | "blank"
  /** Nobody speaks, and nothing moves. */
  | "still"
  /** Nobody speaks for a while between two who do, in one take. */
  | "pause";

export interface IdleRange extends FrameRange {
  kind: IdleKind;
}

/** Standard deviation of luma below which a picture is blank. */
const BLANK_CONTRAST = 2.5;
/** Change of luma above grain and compression noise. */
const MOVES = 5;
const LEAST_SECONDS: Record<IdleKind, number> = { blank: 0.4, still: 2, pause: 1.5 };
/** Seconds kept before speech or movement resumes, and after it ends: a breath. */
const BREATH_SECONDS = 0.3;
/** Seconds of movement, such as a blink, that do not end an idle range; nor does a cut. */
const BLINK_SECONDS = 0.25;

/** A range less a breath at each end, except at the film's own ends. */
function withBreath({ start, end }: FrameRange, breath: number, frames: number): FrameRange {
  return { start: start === 0 ? 0 : start + breath, end: end === frames ? end : end - breath };
}

/**
 * Idle ranges in order, without overlap.
 * @param activity from the film's first frame on
 * @param cuts first frames of shots: a pause lies within one take, and change is not measured across a cut
 */
export function idleRanges(activity: Activity, cuts: readonly number[], rate: Rate): IdleRange[] {
  const { contrast, change, speech } = activity;
  const fps = framesPerSecond(rate);
  const frames = change.length;
  const [breath, blink] = [BREATH_SECONDS, BLINK_SECONDS].map((seconds) => Math.round(seconds * fps)) as [
    number,
    number,
  ];
  const isVoiced = voiced(speech, rate);
  const longEnough = (kind: IdleKind) => (range: FrameRange) => range.end - range.start >= LEAST_SECONDS[kind] * fps;

  const blank = rangesWhere(
    { start: 0, end: frames },
    (frame) => contrast[frame]! * CONTRAST_UNIT < BLANK_CONTRAST,
  ).filter(longEnough("blank"));
  const silent = rangesWhere({ start: 0, end: frames }, (frame) => !isVoiced[frame]);
  const moving = bridged(
    rangesWhere({ start: 0, end: frames }, (frame) => change[frame]! * CHANGE_UNIT >= MOVES),
    blink,
    // A change is seen for as long as it is measured over.
  ).filter((range) => range.end - range.start > blink + CHANGE_SECONDS * fps);
  const still = withoutRanges(withoutRanges(silent, moving), blank)
    .map((range) => withBreath(range, breath, frames))
    .filter(longEnough("still"));
  const takes = [0, ...cuts, frames];
  const inOneTake = ({ start, end }: FrameRange) => !takes.some((cut) => cut > start && cut < end);
  const pauses = silent
    .filter(({ start, end }) => start > 0 && end < frames)
    .filter(inOneTake)
    .map((range) => withBreath(range, breath, frames));
  const pause = withoutRanges(withoutRanges(pauses, still), blank).filter(longEnough("pause"));

  const named = (kind: IdleKind, ranges: readonly FrameRange[]) => ranges.map((range) => ({ ...range, kind }));
  return [...named("blank", blank), ...named("still", still), ...named("pause", pause)].sort(
    (a, b) => a.start - b.start,
  );
}
