import type { Box, Size } from "../geometry/box";
import { centreBounds } from "../geometry/crop-window";
import type { Subject } from "../subjects/subject";
import { boxAt } from "../subjects/track";
import type { FrameRange } from "../time/rate";

/** Where the window's centre should be on one axis, frame by frame; NaN where nothing asks for anything. */
export interface AxisGoals {
  /** Centre positions that keep the face, or what else is followed, wholly inside. */
  insideLower: Float64Array;
  insideUpper: Float64Array;
  /** The same for the rest of the person. */
  bodyLower: Float64Array;
  bodyUpper: Float64Array;
  /** The best position. */
  wanted: Float64Array;
}

/** Room kept around what must stay inside, in window lengths. */
const MARGIN = 0.06;
/** Eyes belong about a third from the top; they lie at about two fifths of a face's box. */
const EYE_LINE = 1 / 3;
const EYES_IN_FACE = 0.4;
/** The upper part of a person's box in which the head is, if no face was found. */
const HEAD_SHARE = 0.28;

/** The box that must not be cut at a frame: the face, or the head's part of a body, or the thing itself. */
export function focusBox(subject: Subject, frame: number): Box | null {
  const box = boxAt(subject.track, frame);
  if (box && subject.track.kind === "person") return { ...box, height: box.height * HEAD_SHARE };
  if (box) return box;
  const body = subject.body && boxAt(subject.body, frame);
  return body ? { ...body, height: body.height * HEAD_SHARE } : null;
}

/** Centres for which [low, high] with its margin is inside a window of a given length. */
function insideInterval(low: number, high: number, length: number, bounds: [number, number]): [number, number] {
  const margin = MARGIN * length;
  const lower = high + margin - length / 2;
  const upper = low - margin + length / 2;
  const clamp = (value: number) => Math.min(bounds[1], Math.max(bounds[0], value));
  // What is larger than the window fills it from edge to edge: anywhere between is as good.
  return [clamp(Math.min(lower, upper)), clamp(Math.max(lower, upper))];
}

/** Goals on one axis for every frame of a shot. */
export function axisGoals(
  axis: "x" | "y",
  subject: Subject | null,
  shot: FrameRange,
  picture: Size,
  windowSize: Size,
): AxisGoals {
  const count = shot.end - shot.start;
  const blank = () => new Float64Array(count).fill(Number.NaN);
  const goals: AxisGoals = {
    insideLower: blank(),
    insideUpper: blank(),
    bodyLower: blank(),
    bodyUpper: blank(),
    wanted: blank(),
  };
  const extent = axis === "x" ? "width" : "height";
  const length = windowSize[extent];
  const bounds = centreBounds(picture[extent], length);
  const clamp = (value: number) => Math.min(bounds[1], Math.max(bounds[0], value));
  if (!subject) {
    goals.wanted.fill(picture[extent] / 2);
    return goals;
  }
  for (let i = 0; i < count; i++) {
    const frame = shot.start + i;
    const focus = focusBox(subject, frame);
    const body = subject.body && boxAt(subject.body, frame);
    if (focus) {
      [goals.insideLower[i], goals.insideUpper[i]] = insideInterval(
        focus[axis],
        focus[axis] + focus[extent],
        length,
        bounds,
      );
      const isFace = subject.track.kind === "face" || subject.track.kind === "person";
      const eyes = focus.y + focus.height * EYES_IN_FACE;
      const middle = focus[axis] + focus[extent] / 2;
      goals.wanted[i] = clamp(axis === "y" && isFace ? eyes + length * (0.5 - EYE_LINE) : middle);
    }
    if (body) {
      [goals.bodyLower[i], goals.bodyUpper[i]] = insideInterval(body[axis], body[axis] + body[extent], length, bounds);
    }
  }
  return goals;
}
