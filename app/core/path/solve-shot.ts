import type { Size } from "../geometry/box";
import { aspectRatio, centreBounds, clampWindow, type CropWindow, largestWindowHeight } from "../geometry/crop-window";
import { framesPerSecond, type FrameRange, type Rate } from "../time/rate";
import type { Subject } from "../subjects/subject";
import { axisGoals } from "./framing-goals";
import { type Key, windowAt } from "./keys";
import { type Manner, MANNER_WEIGHTS } from "./manner";
import { reduceToKeys } from "./reduce-to-keys";
import { solveAxis } from "./solve-axis";

/** Keys reproduce the solved path to within this share of the picture's larger side. */
const KEY_TOLERANCE = 0.004;

export interface ShotProblem {
  shot: FrameRange;
  picture: Size;
  /** Size of the version; only its shape matters. */
  target: Size;
  rate: Rate;
  manner: Manner;
  subject: Subject | null;
  /** Where the editor has put the window, by frame of the film. */
  handKeys: readonly (CropWindow & { frame: number })[];
  /** Where the window comes from, if it goes on from the shot before; a hand key on the first frame wins. */
  startAt?: CropWindow | null;
}

export interface ShotPath {
  keys: Key[];
  /** One window for every frame of the shot, as the keys give it. */
  windows: CropWindow[];
}

/**
 * Lays the path of the crop window through one shot. Hand keys are met exactly; where there is nothing to
 * follow, the window rests in the middle of the picture.
 */
export function solveShot(problem: ShotProblem): ShotPath {
  const { shot, picture, target, rate, manner, subject } = problem;
  const aspect = aspectRatio(target);
  const height = largestWindowHeight(picture, aspect);
  const size = { width: height * aspect, height };
  const hands = problem.handKeys
    .filter(({ frame }) => frame >= shot.start && frame < shot.end)
    .map((key) => ({ frame: key.frame, ...clampWindow({ x: key.x, y: key.y, height }, picture, aspect) }));
  const fixedOn = (axis: "x" | "y") => {
    const fixed = new Map(hands.map((key) => [key.frame - shot.start, key[axis]]));
    if (problem.startAt && !fixed.has(0)) {
      fixed.set(0, clampWindow({ ...problem.startAt, height }, picture, aspect)[axis]);
    }
    return fixed;
  };
  const solve = (axis: "x" | "y") => {
    const extent = axis === "x" ? "width" : "height";
    return solveAxis({
      goals: axisGoals(axis, subject, shot, picture, size),
      windowLength: size[extent],
      bounds: centreBounds(picture[extent], size[extent]),
      fixed: fixedOn(axis),
      fps: framesPerSecond(rate),
      weights: MANNER_WEIGHTS[manner],
    }).positions;
  };
  const path = { x: solve("x"), y: solve("y"), height: new Float64Array(shot.end - shot.start).fill(height) };
  const tolerance = KEY_TOLERANCE * Math.max(picture.width, picture.height);
  const keys = reduceToKeys(path, shot.start, tolerance, new Set(hands.map((key) => key.frame)));
  const windows = Array.from({ length: shot.end - shot.start }, (_, i) =>
    clampWindow(windowAt(keys, shot.start + i), picture, aspect),
  );
  return { keys, windows };
}
