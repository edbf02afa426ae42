import { type Box, type Size, wholeOf } from "../geometry/box";
import { aspectRatio, centreBounds, clampWindow, type CropWindow, largestWindowHeight } from "../geometry/crop-window";
import { framesPerSecond, type FrameRange, inRange, type Rate } from "../time/rate";
import type { Subject } from "../subjects/choosing/subject";
import type { Track } from "../subjects/tracking/track";
import type { DensePath } from "./dense-path";
import { focusBox } from "./focus-box";
import { axisGoals } from "./framing-goals";
import type { FramingSettings } from "./framing-settings";
import type { Easing } from "./easing";
import { type Key, windowAt } from "./keys";
import { boundKeys, withinTolerance } from "./key-bounds";
import { keysAround } from "./keys-around";
import { type Movement, weightsFor } from "./movement";
import { protectedBox } from "./protected-box";
import type { AxisProblem } from "./solve-axis";
import { solveSegments } from "./solve-segments";
import { SolvedProblems } from "./solved-problems";
import { heightGoals, heightLimits } from "./zoom-goals";

/** Share of the picture's larger side within which keys reproduce the solved path. */
const KEY_TOLERANCE = 0.004;
/** Zoom is used with more restraint than pan: it costs this many times as much. */
const ZOOM_RESTRAINT = 2;
/** Range in pixels below which there is nothing to decide on an axis. */
const NO_ROOM = 1e-3;

export interface ShotProblem {
  shot: FrameRange;
  picture: Size;
  /** Size of the version. */
  target: Size;
  rate: Rate;
  settings: FramingSettings & { movement: Movement };
  subject: Subject | null;
  /** A part of the picture to keep inside where possible … */
  protect: Box | null;
  /** … and the text in it, where that fits. */
  texts: readonly Track[];
  /** The editor's windows, by frame of the film, and the easing to the next. */
  handKeys: readonly (CropWindow & { frame: number; easing?: Easing | null })[];
  /** The window's place before, if it continues from the shot before; a hand key on the first frame takes precedence. */
  startAt?: CropWindow | null;
}

export interface ShotPath {
  keys: Key[];
  /** One window per frame of the shot, as the keys give it. */
  windows: CropWindow[];
}

function solve(problem: AxisProblem, solved: SolvedProblems): Float64Array {
  const [low, high] = problem.bounds;
  const hasRoom = low.some((value, i) => high[i]! - value >= NO_ROOM);
  return hasRoom ? solveSegments(problem, solved) : low.map((value, i) => (value + high[i]!) / 2);
}

/**
 * Lays the path of the crop window through one shot: first its size, then its place. Hand keys are met exactly; without a
 * subject, the window rests in the centre of the picture.
 * @param solved problems solved for the shot's path before; extended by those solved now
 */
export function solveShot(problem: ShotProblem, solved = new SolvedProblems()): ShotPath {
  const { shot, picture, target, rate, settings, subject, protect } = problem;
  const count = shot.end - shot.start;
  const aspect = aspectRatio(target);
  const fps = framesPerSecond(rate);
  const largest = largestWindowHeight(picture, aspect);
  const area = wholeOf(picture);
  const weights = weightsFor(settings.movement, settings.calm);
  const hands = problem.handKeys
    .filter(({ frame }) => inRange(frame, shot))
    .map((key) => ({ frame: key.frame, easing: key.easing ?? null, ...clampWindow(key, area, aspect) }))
    .sort((a, b) => a.frame - b.frame);
  const given = new Map<number, CropWindow>(hands.map((key) => [key.frame - shot.start, key]));
  if (problem.startAt && !given.has(0)) given.set(0, clampWindow(problem.startAt, area, aspect));
  const fixedOn = (of: "x" | "y" | "height") => new Map([...given].map(([frame, window]) => [frame, window[of]]));

  const limits = heightLimits(settings, picture, target);
  const fixedHeights = fixedOn("height");
  // A hand key may be larger or smaller than the limits of the zoom.
  const everyHeight = [...limits, ...fixedHeights.values()];
  const filled = (value: number) => new Float64Array(count).fill(value);
  const heightProblem = {
    goals: heightGoals(subject, shot, aspect, limits),
    bounds: [filled(Math.min(...everyHeight)), filled(Math.max(...everyHeight))] as const,
    windowLength: largest,
    fixed: fixedHeights,
    fps,
    weights: {
      ...weights,
      travel: ZOOM_RESTRAINT * weights.travel,
      acceleration: ZOOM_RESTRAINT * weights.acceleration,
      jerk: ZOOM_RESTRAINT * weights.jerk,
    },
  };
  const height = solve(heightProblem, solved);
  const lengthsOn = { x: height.map((value) => value * aspect), y: height };
  const inside = Array.from(height, (value, i) =>
    protectedBox(shot.start + i, protect, problem.texts, { width: value * aspect, height: value }),
  );
  const place = (axis: "x" | "y") => {
    const extent = axis === "x" ? "width" : "height";
    const lengths = lengthsOn[axis];
    const bounds = Array.from(lengths, (length) => centreBounds(picture[extent], length));
    const placeProblem = {
      goals: axisGoals({
        axis,
        subject,
        shot,
        picture,
        lengths,
        fps,
        headroom: settings.headroom / 100,
        keepEnd: settings.keepEnd,
        eyeLine: settings.eyeLine / 100,
        offset: settings.offset[axis],
        protect: inside,
      }),
      bounds: [Float64Array.from(bounds, ([low]) => low), Float64Array.from(bounds, ([, high]) => high)] as const,
      windowLength: lengths.reduce((most, length) => Math.max(most, length), 0),
      fixed: fixedOn(axis),
      fps,
      weights,
    };
    return solve(placeProblem, solved);
  };
  const tolerance = KEY_TOLERANCE * Math.max(picture.width, picture.height);
  const kept = (i: number) => subject && focusBox(subject, shot.start + i);
  const placeWithBounds = (axis: "x" | "y") => boundKeys(place(axis), lengthsOn[axis], axis, kept, tolerance);
  const path: DensePath = {
    x: placeWithBounds("x"),
    y: placeWithBounds("y"),
    height: withinTolerance(height, tolerance),
  };
  const keys = keysAround(path, shot, hands, tolerance);
  const windows = Array.from({ length: count }, (_, i) => clampWindow(windowAt(keys, shot.start + i), area, aspect));
  return { keys, windows };
}
