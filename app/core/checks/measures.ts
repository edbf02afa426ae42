/** Movement of the window, and how much of its subject is inside, frame by frame: for charts and figures. */
import { filmPanes, type ShownAt } from "../composition/composition";
import { boxArea, boxCentre, boxIntersection, type Point } from "../geometry/box";
import type { Key } from "../path/keys";
import { boxAt, type Track } from "../subjects/tracking/track";
import { type FrameRange, framesOf, rangeLength } from "../time/rate";
import { rangesWhere } from "../time/ranges";

/** A number per frame of a shot, NaN where there is none. For its first pane. */
export interface Measures {
  range: FrameRange;
  /** Share of the followed subject's box that is shown, 0 to 1. */
  inside: Float32Array;
  /** In widths of the window per second. */
  speed: Float32Array;
  /** Rate of change of the acceleration, in widths per second cubed. */
  jerk: Float32Array;
  /** Pixels of the frame per pixel of the source. */
  scale: Float32Array;
  /** Whether the followed face is cut off at the top. */
  headCut: Uint8Array;
}

/** Share of a face that may be cut off at its top: hair alone is no head cut off. */
const HEAD_TOLERANCE = 0.08;

/**
 * Measures a shot. Speed is that between a frame and the one before, within one kept range.
 * @param subject the followed track
 */
export function measureShot(
  range: FrameRange,
  kept: readonly FrameRange[],
  subject: Track | null,
  shown: ShownAt,
  fps: number,
): Measures {
  const row = () => new Float32Array(rangeLength(range)).fill(Number.NaN);
  const measures: Measures = {
    range,
    inside: row(),
    speed: row(),
    jerk: row(),
    scale: row(),
    headCut: new Uint8Array(rangeLength(range)),
  };
  for (const part of kept) {
    let before: Point | null = null;
    let speedBefore: Point | null = null;
    let accelerationBefore: Point | null = null;
    for (const frame of framesOf(part)) {
      const i = frame - range.start;
      const [pane] = filmPanes(shown(frame));
      if (!pane) continue;
      const { source, target } = pane;
      const box = subject && boxAt(subject, frame);
      if (box) {
        measures.inside[i] = boxArea(boxIntersection(box, source)) / boxArea(box);
        const isCut = subject.kind === "face" && source.y - box.y > HEAD_TOLERANCE * box.height;
        measures.headCut[i] = isCut ? 1 : 0;
      }
      measures.scale[i] = target.height / source.height;
      const centre = boxCentre(source);
      const per = (a: Point, b: Point): Point => ({
        x: ((a.x - b.x) * fps) / source.width,
        y: ((a.y - b.y) * fps) / source.width,
      });
      const speed: Point | null = before && per(centre, before);
      const acceleration: Point | null =
        speed && speedBefore ? { x: (speed.x - speedBefore.x) * fps, y: (speed.y - speedBefore.y) * fps } : null;
      if (speed) measures.speed[i] = Math.hypot(speed.x, speed.y);
      if (acceleration && accelerationBefore) {
        measures.jerk[i] =
          Math.hypot(acceleration.x - accelerationBefore.x, acceleration.y - accelerationBefore.y) * fps;
      }
      before = centre;
      speedBefore = speed;
      accelerationBefore = acceleration;
    }
  }
  return measures;
}

/** A point of a chart: the worst of its frames, with the fields of `Measures`; null where there is nothing. */
export interface ChartMoment {
  frame: number;
  inside: number | null;
  speed: number | null;
  jerk: number | null;
  scale: number | null;
}

/**
 * Reduces the measures of a film's shots to a number of chart points, each the worst of its frames.
 * @param frames length of the film
 */
export function chartMoments(shots: readonly Measures[], frames: number, moments: number): ChartMoment[] {
  const each = Math.max(1, Math.ceil(frames / moments));
  const made = Array.from({ length: Math.ceil(frames / each) }, (_, i): ChartMoment => ({
    frame: i * each,
    inside: null,
    speed: null,
    jerk: null,
    scale: null,
  }));
  for (const { range, ...rows } of shots) {
    for (const frame of framesOf(range)) {
      const moment = made[Math.floor(frame / each)];
      if (!moment) continue;
      const i = frame - range.start;
      const worst = (name: "inside" | "speed" | "jerk" | "scale", choose: (a: number, b: number) => number) => {
        const value = rows[name][i]!;
        if (!Number.isNaN(value)) moment[name] = moment[name] === null ? value : choose(moment[name], value);
      };
      worst("inside", Math.min);
      for (const name of ["speed", "jerk", "scale"] as const) worst(name, Math.max);
    }
  }
  return made;
}

/** Figures of a version. */
export interface VersionFigures {
  shots: number;
  keys: { solver: number; hand: number };
  /** Share of the frames with a followed subject in which nearly all of it is inside; null where nothing is followed. */
  inside: number | null;
  /** Frames in which a followed head is cut off at its top. */
  headsCut: number;
  /** The longest move that is faster than `FAST`; null if there is none. */
  longestFastMove: FrameRange | null;
  /** Fewest pixels of the source per pixel of the frame; null where nothing is shown. */
  leastResolution: number | null;
}

/** Widths per second above which a move is fast. */
export const FAST = 0.75;
/** Share of a subject that counts as nearly all of it. */
const NEARLY_ALL = 0.92;

export function figuresOf(
  shots: readonly { measures: Measures; keys: readonly Key[]; kept: readonly FrameRange[] }[],
): VersionFigures {
  let [seen, inside, headsCut, most] = [0, 0, 0, 0];
  let longest: FrameRange | null = null;
  const keys = { solver: 0, hand: 0 };
  for (const { measures, keys: all, kept } of shots) {
    for (const { by } of all) keys[by]++;
    measures.inside.forEach((share, i) => {
      if (!Number.isNaN(share)) seen++;
      if (share >= NEARLY_ALL) inside++;
      headsCut += measures.headCut[i]!;
      if (measures.scale[i]! > most) most = measures.scale[i]!;
    });
    const isFast = (frame: number) => measures.speed[frame - measures.range.start]! > FAST;
    for (const move of kept.flatMap((part) => rangesWhere(part, isFast))) {
      if (!longest || rangeLength(move) > rangeLength(longest)) longest = move;
    }
  }
  return {
    shots: shots.filter(({ kept }) => kept.length > 0).length,
    keys,
    headsCut,
    longestFastMove: longest,
    inside: seen > 0 ? inside / seen : null,
    leastResolution: most > 0 ? 1 / most : null,
  };
}
