import { describe, expect, test } from "@jest/globals";
import { blankGoals } from "./framing-goals";
import { MOVEMENT_WEIGHTS } from "./movement";
import { solveAxis } from "./solve-axis";
import { SolvedProblems } from "./solved-problems";

const COUNT = 60;

function problem(at: number, travel = MOVEMENT_WEIGHTS.glide.travel) {
  return {
    goals: { ...blankGoals(COUNT), wanted: Float64Array.from({ length: COUNT }, (_, t) => 800 + 4 * t) },
    windowLength: 600,
    bounds: [new Float64Array(COUNT).fill(300), new Float64Array(COUNT).fill(1620)] as const,
    fixed: new Map([[20, at]]),
    fps: 30,
    weights: { ...MOVEMENT_WEIGHTS.glide, travel },
  };
}

describe("solved problems", () => {
  test("give the solution that was found for an equal problem", () => {
    const solved = new SolvedProblems();
    const first = solved.solve(problem(700));
    solved.forgetUnused();
    expect(solved.solve(problem(700))).toBe(first);
    expect(first).toEqual(solveAxis(problem(700)).positions);
  });

  test("solve anew what differs in anything", () => {
    const solved = new SolvedProblems();
    solved.solve(problem(700));
    const goals = problem(700).goals;
    goals.wanted[59]! += 1;
    for (const other of [problem(701), problem(700, 2), { ...problem(700), goals }]) {
      expect(solved.solve(other)).toEqual(solveAxis(other).positions);
    }
  });

  test("forget what the last path did not need", () => {
    const solved = new SolvedProblems();
    const first = solved.solve(problem(700));
    solved.forgetUnused();
    solved.solve(problem(710));
    solved.forgetUnused();
    expect(solved.solve(problem(700))).not.toBe(first);
  });
});
