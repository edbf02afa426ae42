/** What a path of one coordinate is like, and how well it keeps its subject. */
import type { Box } from "~/core/geometry/box";
import { centreBounds } from "~/core/geometry/crop-window";
import { focusBox } from "~/core/path/focus-box";
import { boxAt } from "~/core/subjects/tracking/track";
import { framesPerSecond } from "~/core/time/rate";
import type { PathCase } from "./cases";

export interface PathFigures {
  /** Share of the frames with the subject in which its face, or itself, is wholly inside. */
  inside: number;
  /** The same for the whole of it: a person's body, where one was found. */
  wholeInside: number;
  /** Mean distance of the subject's middle from the window's, in windows. */
  off: number;
  /** Speed in windows per second and jerk in windows per second³, mean and most. */
  speed: number;
  topSpeed: number;
  jerk: number;
  topJerk: number;
  /** Ranges in which the window moves. */
  moves: number;
}

/** Movement slower than this, in windows per second, is none. */
const STILL = 0.01;

/** Boxes end at the picture's edge, give or take rounding, in pixels. */
const EDGE = 1;
/** Part of a pixel that nobody sees missing. */
const UNSEEN = 0.5;

export const windowWidth = ({ picture }: PathCase): number => (picture.height * 9) / 16;

/** Whether the picture shows a box whole: what its own edge cuts is whole in no window. */
const isUncut = (box: Box, { picture }: PathCase): boolean =>
  box.x >= EDGE && box.x + box.width <= picture.width - EDGE;

export function clampPath(path: Float64Array, of: PathCase): Float64Array {
  const [low, high] = centreBounds(of.picture.width, windowWidth(of));
  return path.map((x) => Math.min(high, Math.max(low, x)));
}

export function measure(path: Float64Array, of: PathCase): PathFigures {
  const width = windowWidth(of);
  const fps = framesPerSecond(of.rate);
  const isIn = (box: Box, x: number) => box.x >= x - width / 2 - UNSEEN && box.x + box.width <= x + width / 2 + UNSEEN;
  let [asked, inside, off, askedWhole, wholeInside] = [0, 0, 0, 0, 0];
  path.forEach((x, i) => {
    const frame = of.shot.start + i;
    const box = focusBox(of.subject, frame);
    const whole = (of.subject.body && boxAt(of.subject.body, frame)) ?? boxAt(of.subject.track, frame);
    if (whole && isUncut(whole, of)) {
      askedWhole++;
      if (isIn(whole, x)) wholeInside++;
    }
    if (!box || !isUncut(box, of)) return;
    asked++;
    if (isIn(box, x)) inside++;
    off += Math.abs(box.x + box.width / 2 - x) / width;
  });
  const unit = path.map((x) => x / width);
  let [speed, topSpeed, jerk, topJerk, moves, moving] = [0, 0, 0, 0, 0, false];
  for (let t = 1; t < unit.length; t++) {
    const v = Math.abs(unit[t]! - unit[t - 1]!) * fps;
    speed += v;
    topSpeed = Math.max(topSpeed, v);
    if (v > STILL && !moving) moves++;
    moving = v > STILL;
    if (t < 3) continue;
    const change = Math.abs(unit[t]! - 3 * unit[t - 1]! + 3 * unit[t - 2]! - unit[t - 3]!) * fps ** 3;
    jerk += change;
    topJerk = Math.max(topJerk, change);
  }
  const steps = Math.max(1, unit.length - 1);
  return {
    inside: asked > 0 ? inside / asked : 1,
    wholeInside: askedWhole > 0 ? wholeInside / askedWhole : 1,
    off: asked > 0 ? off / asked : 0,
    speed: speed / steps,
    topSpeed,
    jerk: jerk / steps,
    topJerk,
    moves,
  };
}
