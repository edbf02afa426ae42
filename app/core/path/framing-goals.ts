import { clamped } from "../numbers/clamped";
import type { Box, Size } from "../geometry/box";
import { centreBounds } from "../geometry/crop-window";
import { facingThrough } from "../subjects/detecting/facing";
import type { Subject } from "../subjects/choosing/subject";
import { boxAt } from "../subjects/tracking/track";
import type { FrameRange } from "../time/rate";
import { endPart, focusBox, keptEnd } from "./focus-box";
import type { EndChoice } from "./framing-settings";
import { PROTECT_MARGIN } from "./protected-box";

/** Where the window's centre should be on one axis, frame by frame; NaN where nothing is wanted. */
export interface AxisGoals {
  /** Centres that keep the face, or another subject, wholly inside. */
  insideLower: Float64Array;
  insideUpper: Float64Array;
  /** The same for the rest of the person. */
  bodyLower: Float64Array;
  bodyUpper: Float64Array;
  /** The same for protected areas. */
  protectLower: Float64Array;
  protectUpper: Float64Array;
  /** The best position. */
  wanted: Float64Array;
}

/** What determines the goals on an axis. */
export interface GoalsProblem {
  axis: "x" | "y";
  subject: Subject | null;
  shot: FrameRange;
  picture: Size;
  /** The window's length on this axis, frame by frame, in pixels. */
  lengths: Float64Array;
  fps: number;
  /** Share of the window's height to be kept free above a head. */
  headroom: number;
  /** Which end of a subject wider than the window to keep; the one with its head if left out. */
  keepEnd?: EndChoice;
  /** Height of the eye line, as a share of the window's height from its top. */
  eyeLine: number;
  /** Offset of the window to the right or downwards, in window lengths of this axis. */
  offset: number;
  /** The protected area, frame by frame; null where there is none. */
  protect: readonly (Box | null)[];
}

/** Margin around what must stay inside, in window lengths. */
const MARGIN = 0.06;
/** Height of the eyes in a face's box, as a share from its top. */
export const EYES_IN_FACE = 0.4;
/** Hair reaches above a face's box by this share of its height. */
const HAIR = 0.25;
/** Look room ahead of a moving subject: windows per window per second … */
const LOOK_ROOM_SECONDS = 0.2;
/** … and of a head in profile, in proportion to its turn beyond a glance. */
const LOOK_ROOM_OF_PROFILE = 0.1;
const GLANCE = 0.25;
const MOST_LOOK_ROOM = 0.1;
/** Half the time over which facing is averaged, in seconds: a head turns more often than a window should. */
const FACING_SECONDS = 1.5;
/** Half the time over which movement is measured, in seconds. */
const MOVEMENT_SECONDS = 0.4;

export const blankGoals = (count: number): AxisGoals => {
  const blank = () => new Float64Array(count).fill(Number.NaN);
  return {
    insideLower: blank(),
    insideUpper: blank(),
    bodyLower: blank(),
    bodyUpper: blank(),
    protectLower: blank(),
    protectUpper: blank(),
    wanted: blank(),
  };
};

/** The goals from one frame to another; the values are shared. */
export function cutGoals(goals: AxisGoals, start: number, end: number): AxisGoals {
  const cut = (values: Float64Array) => values.subarray(start, end);
  return {
    insideLower: cut(goals.insideLower),
    insideUpper: cut(goals.insideUpper),
    bodyLower: cut(goals.bodyLower),
    bodyUpper: cut(goals.bodyUpper),
    protectLower: cut(goals.protectLower),
    protectUpper: cut(goals.protectUpper),
    wanted: cut(goals.wanted),
  };
}

/** Centres for which [low, high] with its margins is inside a window of a given length. */
function insideInterval(
  low: number,
  high: number,
  length: number,
  [before, after]: [number, number],
  bounds: [number, number],
): [number, number] {
  const lower = high + after * length - length / 2;
  const upper = low - before * length + length / 2;
  const clamp = (value: number) => clamped(value, bounds[0], bounds[1]);
  // What is larger than the window fills it from edge to edge: any place in between is as good.
  return [clamp(Math.min(lower, upper)), clamp(Math.max(lower, upper))];
}

/** Horizontal speed of a subject, in windows per second. */
function speedAcross(subject: Subject, frame: number, windowWidth: number, fps: number): number {
  const reach = Math.max(1, Math.round(MOVEMENT_SECONDS * fps));
  const [from, to] = [focusBox(subject, frame - reach), focusBox(subject, frame + reach)];
  if (!from || !to) return 0;
  const moved = to.x + to.width / 2 - from.x - from.width / 2;
  return (moved * fps) / (2 * reach) / windowWidth;
}

/** Distance of the window's centre ahead of the subject, in windows, by its speed and the side it faces. */
function lookRoom(speed: number, side: number): number {
  const turned = Number.isNaN(side) ? 0 : Math.sign(side) * Math.max(0, (Math.abs(side) - GLANCE) / (1 - GLANCE));
  const ahead = LOOK_ROOM_SECONDS * speed + LOOK_ROOM_OF_PROFILE * turned;
  return clamped(ahead, -MOST_LOOK_ROOM, MOST_LOOK_ROOM);
}

/** Goals on one axis for every frame of a shot. */
export function axisGoals(problem: GoalsProblem): AxisGoals {
  const { axis, subject, shot, picture, lengths, fps, headroom, keepEnd = "auto", eyeLine, offset, protect } = problem;
  const count = shot.end - shot.start;
  const goals = blankGoals(count);
  const extent = axis === "x" ? "width" : "height";
  protect.forEach((box, i) => {
    if (!box) return;
    const [low, high] = [box[axis], box[axis] + box[extent]];
    const bounds = centreBounds(picture[extent], lengths[i]!);
    const room = [PROTECT_MARGIN, PROTECT_MARGIN] as [number, number];
    [goals.protectLower[i], goals.protectUpper[i]] = insideInterval(low, high, lengths[i]!, room, bounds);
  });
  if (!subject) {
    goals.wanted.fill(picture[extent] / 2);
    return goals;
  }
  const isFace = subject.track.kind === "face" || subject.track.kind === "person";
  const margins: [number, number] = axis === "y" && isFace ? [Math.max(MARGIN, headroom), MARGIN] : [MARGIN, MARGIN];
  const facing = facingThrough(subject.track.facing ?? [], shot, Math.round(FACING_SECONDS * fps));
  const end = keptEnd(subject.track, keepEnd);
  for (let i = 0; i < count; i++) {
    const frame = shot.start + i;
    const length = lengths[i]!;
    const bounds = centreBounds(picture[extent], length);
    const box = focusBox(subject, frame);
    // Of an animal that the window cannot hold, it holds the head.
    const focus = box && axis === "x" ? endPart(box, end, (1 - 2 * MARGIN) * length) : box;
    const body = subject.body && boxAt(subject.body, frame);
    if (focus) {
      const high = focus[axis] + focus[extent];
      const low = axis === "y" && subject.track.kind === "face" ? focus.y - HAIR * focus.height : focus[axis];
      [goals.insideLower[i], goals.insideUpper[i]] = insideInterval(low, high, length, margins, bounds);
      const middle = focus[axis] + focus[extent] / 2;
      const eyes = focus.y + focus.height * EYES_IN_FACE;
      const best =
        axis === "x"
          ? middle + length * lookRoom(speedAcross(subject, frame, length, fps), facing[i]!)
          : isFace
            ? eyes + length * (0.5 - eyeLine)
            : middle;
      goals.wanted[i] = clamped(best + offset * length, bounds[0], bounds[1]);
    }
    if (body) {
      const [low, high] = [body[axis], body[axis] + body[extent]];
      [goals.bodyLower[i], goals.bodyUpper[i]] = insideInterval(low, high, length, [MARGIN, MARGIN], bounds);
    }
  }
  return goals;
}
