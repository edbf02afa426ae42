/** How large the window should be, frame by frame, where the zoom is free. */
import { clamped } from "../numbers/clamped";
import type { Size } from "../geometry/box";
import { aspectRatio, largestWindowHeight } from "../geometry/crop-window";
import type { Subject } from "../subjects/choosing/subject";
import { boxAt } from "../subjects/tracking/track";
import type { FrameRange } from "../time/rate";
import { focusBox } from "./focus-box";
import { type AxisGoals, blankGoals } from "./framing-goals";
import type { FramingSettings } from "./framing-settings";

/** Share of the window's height that a face, and of the window that a thing, should take. */
const FACE_SHARE = 0.2;
const THING_SHARE = 0.5;
/** What must be inside takes no more of the window than this. */
const FITTING_SHARE = 0.88;

/** How far a zoom may go in before the picture is enlarged more than so many times; 1 where it is without any zoom. */
export const mostZoom = (picture: Size, target: Size, largestScale: number): number =>
  Math.max(1, (largestScale * largestWindowHeight(picture, aspectRatio(target))) / target.height);

/**
 * The least and the greatest height of a version's window, in pixels of the picture. A free zoom stops at what the
 * picture bears; one that is asked for as such is as asked.
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

/** Goals for the window's height: what is followed wholly inside, and of a good size. */
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
