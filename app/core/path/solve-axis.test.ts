import { clamped } from "../numbers/clamped";
import { describe, expect, test } from "@jest/globals";
import { axisProblem, PICTURE_WIDTH, wanderer, WINDOW_WIDTH } from "../../../tests/support/axis-problem";
import { EVERY_TEST } from "../../../tests/support/every-test";
import { referenceOptimum } from "../../../tests/support/lp-reference";
import { cutGoals } from "./framing-goals";
import { MOVEMENT_WEIGHTS, MOVEMENTS } from "./movement";
import { type AxisProblem, axisProgram, solveAxis } from "./solve-axis";

const SEEDS = [1, 2, 3, 4, 5, 6, 7, 8];
/** Pixels by which two ways to the same path may differ: the solver stops when its cost is known to a ten-thousandth. */
const SAME = 3;

const farthest = (a: Float64Array, b: Float64Array) => a.reduce((most, x, t) => Math.max(most, Math.abs(x - b[t]!)), 0);
const backwards = (values: Float64Array) => Float64Array.from(values).reverse();
const travel = (path: Float64Array) =>
  path.reduce((sum, x, t) => sum + (t > 0 ? Math.abs(x - path[t - 1]!) : 0), 0) / WINDOW_WIDTH;

describe("the path of one coordinate", () => {
  // More scenes find where the interior point ends too early, which a single one seldom shows.
  test.each(
    MOVEMENTS.flatMap((movement) => SEEDS.slice(0, EVERY_TEST ? 4 : 1).map((seed) => [movement, seed] as const)),
  )("in %s is as good as the general solver's optimum (subject %i)", async (movement, seed) => {
    const problem = axisProblem(wanderer(seed, 75), movement);
    const { solution } = solveAxis(problem);
    const { objective: optimum } = await referenceOptimum(axisProgram(problem));
    expect(solution.objective).toBeLessThanOrEqual(optimum * 1.001 + 1e-2);
    expect(solution.objective).toBeGreaterThanOrEqual(optimum * 0.999 - 1e-2);
    expect(solution.relativeGap).toBeLessThanOrEqual(1e-4);
  });

  test.each(MOVEMENTS.flatMap((movement) => [24, 60].map((fps) => [movement, fps] as const)))(
    "in %s at %i frames per second stays inside the picture and under the limits, whatever the subject does",
    (movement, fps) => {
      const { maxSpeed, maxAcceleration } = MOVEMENT_WEIGHTS[movement];
      for (const seed of SEEDS) {
        const { positions } = solveAxis(axisProblem(wanderer(seed, 5 * fps, fps), movement, fps));
        positions.forEach((x, t) => {
          expect(x).toBeGreaterThanOrEqual(WINDOW_WIDTH / 2 - 1e-6);
          expect(x).toBeLessThanOrEqual(PICTURE_WIDTH - WINDOW_WIDTH / 2 + 1e-6);
          const speed = t > 0 ? x - positions[t - 1]! : 0;
          expect(Math.abs(speed) / WINDOW_WIDTH).toBeLessThanOrEqual(maxSpeed / fps + 1e-5);
          const change = t > 1 ? x - 2 * positions[t - 1]! + positions[t - 2]! : 0;
          expect(Math.abs(change) / WINDOW_WIDTH).toBeLessThanOrEqual(maxAcceleration / fps ** 2 + 1e-5);
        });
      }
    },
  );

  test("meets given places, and keeps the limits on the way where they can be kept", () => {
    for (const seed of SEEDS) {
      const fixed = new Map([
        [0, 400],
        [60, 900],
        [149, 1500],
      ]);
      const { positions } = solveAxis({ ...axisProblem(wanderer(seed, 150)), fixed });
      for (const [frame, x] of fixed) expect(positions[frame]).toBe(x);
      const speeds = positions.slice(1).map((x, t) => (Math.abs(x - positions[t]!) / WINDOW_WIDTH) * 30);
      expect(Math.max(...speeds)).toBeLessThanOrEqual(MOVEMENT_WEIGHTS.glide.maxSpeed + 1e-3);
    }
  });

  test("is mirrored where the subject is", () => {
    for (const seed of SEEDS) {
      const wanted = wanderer(seed, 150);
      const { positions } = solveAxis(axisProblem(wanted));
      const mirrored = solveAxis(axisProblem(wanted.map((x) => PICTURE_WIDTH - x))).positions;
      const back = mirrored.map((x) => PICTURE_WIDTH - x);
      expect(farthest(back, positions)).toBeLessThan(SAME);
    }
  });

  test("is the same backwards: nothing of it waits for what has been", () => {
    for (const seed of SEEDS) {
      const wanted = wanderer(seed, 150);
      const { positions } = solveAxis(axisProblem(wanted));
      expect(farthest(backwards(solveAxis(axisProblem(backwards(wanted))).positions), positions)).toBeLessThan(SAME);
    }
  });

  test("does not depend on the size of the picture", () => {
    const twice = (values: Float64Array) => values.map((x) => 2 * x);
    for (const seed of SEEDS) {
      const problem = axisProblem(wanderer(seed, 120));
      const { goals, bounds } = problem;
      const larger: AxisProblem = {
        ...problem,
        goals: {
          ...goals,
          wanted: twice(goals.wanted),
          insideLower: twice(goals.insideLower),
          insideUpper: twice(goals.insideUpper),
        },
        bounds: [twice(bounds[0]), twice(bounds[1])],
        windowLength: 2 * WINDOW_WIDTH,
      };
      const back = solveAxis(larger).positions.map((x) => x / 2);
      expect(farthest(back, solveAxis(problem).positions)).toBeLessThan(1e-3);
    }
  });

  test("means the same at every frame rate", () => {
    // Somebody who walks once, without jitter: at twice the rate he is at the same places at the same times.
    const walk = (fps: number) =>
      Float64Array.from({ length: 6 * fps }, (_, t) => 500 + 700 * clamped((t / fps - 2) / 2, 0, 1));
    const [slow, quick] = [30, 60].map((fps) => solveAxis(axisProblem(walk(fps), "glide", fps)).positions);
    const every = slow!.map((_, t) => quick![2 * t]!);
    expect(farthest(every, slow!)).toBeLessThan(12);
  });

  test("in Still is one place, and that which a shorter shot of the same has, too", () => {
    const problem = axisProblem(new Float64Array(90).fill(700), "still");
    const { positions } = solveAxis(problem);
    expect(Math.max(...positions) - Math.min(...positions)).toBeLessThan(1e-3);
    const bounds = problem.bounds.map((bound) => bound.subarray(0, 30)) as [Float64Array, Float64Array];
    const shorter = solveAxis({ ...problem, goals: cutGoals(problem.goals, 0, 30), bounds }).positions;
    expect(Math.abs(shorter[0]! - positions[0]!)).toBeLessThan(1);
  });

  test("moves the less, the calmer the movement", () => {
    for (const seed of SEEDS) {
      const wanted = wanderer(seed, 200);
      const [still, glide, chase] = MOVEMENTS.map((movement) =>
        travel(solveAxis(axisProblem(wanted, movement)).positions),
      );
      expect(still).toBeLessThan(1e-3);
      expect(glide).toBeLessThanOrEqual(chase! + 1e-3);
    }
  });
});
