/** How large the window should be, frame by frame, where the zoom is free. */
import type { Size } from "../geometry/box";
import { largestWindowHeight } from "../geometry/crop-window";
import type { Subject } from "../subjects/subject";
import { boxAt } from "../subjects/track";
import type { FrameRange } from "../time/rate";
import { focusBox } from "./focus-box";
import { type AxisGoals, blankGoals } from "./framing-goals";
import type { Zoom } from "./framing-settings";

/** Share of the window's height that a face, and of the window that a thing, should take. */
const FACE_SHARE = 0.2;
const THING_SHARE = 0.5;
/** What must be inside takes no more of the window than this. */
const FITTING_SHARE = 0.88;

/** The least and the greatest height of a window of an aspect ratio, in pixels of the picture. */
export function heightLimits(zoom: Zoom, picture: Size, aspect: number): [number, number] {
  const largest = largestWindowHeight(picture, aspect);
  return zoom.kind === "fixed"
    ? [largest / zoom.factor, largest / zoom.factor]
    : [largest / zoom.max, largest / zoom.min];
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
  const clamp = (value: number) => Math.min(most, Math.max(least, value));
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
