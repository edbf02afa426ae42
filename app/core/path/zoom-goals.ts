/** Size of the window, frame by frame, where the zoom is free. */
import { clamped } from "../numbers/clamped";
import type { Size } from "../geometry/box";
import { aspectRatio, largestWindowHeight } from "../geometry/crop-window";
import type { Subject } from "../subjects/choosing/subject";
import { boxAt } from "../subjects/tracking/track";
import type { FrameRange } from "../time/rate";
import { focusBox } from "./focus-box";
import { type AxisGoals, blankGoals } from "./framing-goals";
import type { FramingSettings } from "./framing-settings";

/** Share of the window's height that a face should take, and share of the window that a thing should. */
const FACE_SHARE = 0.2;
const THING_SHARE = 0.5;
/** Largest share of the window for what must be inside. */
const FITTING_SHARE = 0.88;

/** Strongest zoom before the picture exceeds a scale; 1 where it does without any zoom. */
export const mostZoom = (picture: Size, target: Size, largestScale: number): number =>
  Math.max(1, (largestScale * largestWindowHeight(picture, aspectRatio(target))) / target.height);

/**
 * Least and greatest height of a version's window, in pixels of the picture. A free zoom stops at the largest scale; a set
 * one does not.
 */
export function heightLimits(
  { zoom, largestScale }: Pick<FramingSettings, "zoom" | "largestScale">,
  picture: Size,
  target: Size,
): [number, number] {
  const largest = largestWindowHeight(picture, aspectRatio(target));
  if (zoom.kind === "fixed") return [largest / zoom.factor, largest / zoom.factor];
  const most = Math.max(zoom.min, Math.min(zoom.max, mostZoom(picture, target, largestScale)));
  return [largest / most, largest / zoom.min];
}

/** Goals for the window's height: the subject wholly inside, and of a good size. */
export function heightGoals(
  subject: Subject | null,
  shot: FrameRange,
  aspect: number,
  [least, most]: readonly [number, number],
): AxisGoals {
  const count = shot.end - shot.start;
  const goals = blankGoals(count);
  if (!subject) {
    goals.wanted.fill(most);
    return goals;
  }
  const clamp = (value: number) => clamped(value, least, most);
  const heightFor = ({ width, height }: Size) => Math.max(width / aspect, height);
  const isFace = subject.track.kind === "face" || subject.track.kind === "person";
  for (let i = 0; i < count; i++) {
    const frame = shot.start + i;
    const focus = focusBox(subject, frame);
    const body = subject.body && boxAt(subject.body, frame);
    if (focus) {
      goals.insideLower[i] = clamp(heightFor(focus) / FITTING_SHARE);
      goals.insideUpper[i] = most;
      goals.wanted[i] = clamp(isFace ? focus.height / FACE_SHARE : heightFor(focus) / THING_SHARE);
    }
    if (body) {
      goals.bodyLower[i] = clamp(body.width / aspect / FITTING_SHARE);
      goals.bodyUpper[i] = most;
    }
  }
  return goals;
}
