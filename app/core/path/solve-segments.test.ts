import { clamped } from "../numbers/clamped";
import { describe, expect, test } from "@jest/globals";
import { axisProblem, WINDOW_WIDTH } from "../../../tests/support/axis-problem";
import { cutGoals } from "./framing-goals";
import { MOVEMENT_WEIGHTS } from "./movement";
import { type AxisProblem, axisProgram } from "./solve-axis";
import { SolvedProblems } from "./solved-problems";
import { solveSegments } from "./solve-segments";
import { objectiveAt } from "./piecewise-linear-program";
import { solveProgram } from "./solve-program";

const COUNT = 300;

/** A subject that rests, walks and rests, with the jitter of a detector; keys where they are given. */
function problem(keys: Record<number, number> = {}): AxisProblem {
  const wanted = Float64Array.from({ length: COUNT }, (_, t) => {
    const walked = clamped((t - 100) / 80, 0, 1);
    return 500 + 800 * walked + 6 * Math.sin(1.7 * t);
  });
  return { ...axisProblem(wanted), fixed: new Map(Object.entries(keys).map(([frame, x]) => [Number(frame), x])) };
}

describe("a path with hand keys", () => {
  test("meets them exactly", () => {
    const positions = solveSegments(problem({ 0: 900, 40: 700, 41: 710, 43: 690, 200: 1000, 299: 1100 }));
    expect([0, 40, 41, 43, 200, 299].map((frame) => positions[frame])).toEqual([900, 700, 710, 690, 1000, 1100]);
  });

  test("changes with one of them only as far as those beside it", () => {
    const before = solveSegments(problem({ 60: 700, 150: 900, 240: 1200 }));
    const after = solveSegments(problem({ 60: 700, 150: 1400, 240: 1200 }));
    for (let t = 0; t < COUNT; t++) {
      if (t <= 60 || t >= 240) expect(after[t]).toBe(before[t]);
    }
    expect(after[150]! - before[150]!).toBe(500);
    expect(Math.abs(after[100]! - before[100]!)).toBeGreaterThan(0);
  });

  test("is the same when what was solved before is used again", () => {
    const solved = new SolvedProblems();
    for (const x of [900, 930, 1000, 930]) {
      const keys = { 60: 700, 150: x, 240: 1200 };
      expect(solveSegments(problem(keys), solved)).toEqual(solveSegments(problem(keys)));
      solved.forgetUnused();
    }
  });

  test("goes to a place off the subject in good time and comes back without haste", () => {
    const usual = solveSegments(problem());
    for (const [frame, x] of [
      [60, 1000],
      [140, 400],
      [240, 800],
    ] as const) {
      const positions = solveSegments(problem({ [frame]: x }));
      const speeds = positions.slice(1).map((at, t) => (Math.abs(at - positions[t]!) * 30) / WINDOW_WIDTH);
      expect(Math.max(...speeds)).toBeLessThan(1.6);
      // At least two thirds of a second to each side.
      for (const t of [frame - 20, frame + 20]) expect(Math.abs(positions[t]! - usual[t]!)).toBeGreaterThan(40);
    }
  });

  test("flows through them: no kink that the limits forbid", () => {
    const { maxSpeed, maxAcceleration } = MOVEMENT_WEIGHTS.glide;
    const positions = solveSegments(problem({ 60: 700, 150: 900, 240: 1200 })).map((x) => x / WINDOW_WIDTH);
    for (let t = 2; t < COUNT; t++) {
      const [a, b, c] = [positions[t - 2]!, positions[t - 1]!, positions[t]!];
      expect(Math.abs(c - b)).toBeLessThanOrEqual(maxSpeed / 30 + 1e-6);
      expect(Math.abs(c - 2 * b + a)).toBeLessThanOrEqual(maxAcceleration / 900 + 1e-6);
    }
  });

  test("costs little more than the best one that meets them", () => {
    const asked = problem({ 60: 620, 150: 1000, 240: 1250 });
    const program = axisProgram(asked);
    const best = solveProgram(program, new Float64Array(COUNT).fill(960 / WINDOW_WIDTH));
    const local = solveSegments(asked).map((x) => x / WINDOW_WIDTH);
    expect(objectiveAt(program, local)).toBeLessThan(1.3 * best.objective);
  });

  test.each([1, 2, 3])("can be laid through %d frames", (count) => {
    const { goals, bounds, ...rest } = problem({ 0: 800 });
    const cut = (values: Float64Array) => values.slice(0, count);
    const short = {
      ...rest,
      bounds: [cut(bounds[0]), cut(bounds[1])] as const,
      goals: cutGoals(goals, 0, count),
    };
    const positions = solveSegments(short);
    expect(positions).toHaveLength(count);
    expect(positions[0]).toBe(800);
  });
});
