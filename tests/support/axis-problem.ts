import { blankGoals } from "~/core/path/framing-goals";
import { type Movement, MOVEMENT_WEIGHTS } from "~/core/path/movement";
import type { AxisProblem } from "~/core/path/solve-axis";
import { seeded } from "../../demo/film/random";

export const PICTURE_WIDTH = 1920;
export const WINDOW_WIDTH = 607.5;

/** Where the middle of a face should be from frame to frame; NaN where there is none. */
export function axisProblem(wanted: Float64Array, movement: Movement = "glide", fps = 30): AxisProblem {
  const count = wanted.length;
  const half = WINDOW_WIDTH / 2;
  return {
    goals: {
      ...blankGoals(count),
      wanted,
      insideLower: wanted.map((x) => x - 190),
      insideUpper: wanted.map((x) => x + 190),
    },
    windowLength: WINDOW_WIDTH,
    bounds: [new Float64Array(count).fill(half), new Float64Array(count).fill(PICTURE_WIDTH - half)],
    fixed: new Map(),
    fps,
    weights: MOVEMENT_WEIGHTS[movement],
  };
}

/** A subject that rests, walks, turns, runs and is lost, as chance has it, with the jitter of a detector. */
export function wanderer(seed: number, count: number, fps = 30): Float64Array {
  const random = seeded(seed);
  let [at, speed, left, seen] = [200 + 1500 * random(), 0, 0, true];
  return Float64Array.from({ length: count }, () => {
    if (left-- <= 0) {
      left = fps * (0.3 + 2 * random());
      const fastest = random() < 0.2 ? 900 : 250;
      speed = random() < 0.4 ? 0 : fastest * (2 * random() - 1);
      seen = random() > 0.15;
    }
    at += speed / fps;
    if (at < 100 || at > PICTURE_WIDTH - 100) speed = -speed;
    return seen ? at + 8 * (random() - 0.5) : Number.NaN;
  });
}
