import { type AxisProblem, solveAxis } from "./solve-axis";

interface Solved {
  problem: AxisProblem;
  positions: Float64Array;
}

/**
 * Problems with their solutions, kept from one path of a shot to the next: when a key moves, only the segments beside it
 * are solved again. Paths are the same with and without it.
 */
export class SolvedProblems {
  private used: Solved[] = [];
  private unused: Solved[] = [];

  /** Positions in pixels, one per frame; not to be written to. */
  solve(problem: AxisProblem): Float64Array {
    const isAsked = (solved: Solved) => isSame(solved.problem, problem);
    const asked = this.used.find(isAsked);
    if (asked) return asked.positions;
    const solved = this.unused.find(isAsked) ?? { problem, positions: solveAxis(problem).positions };
    this.used.push(solved);
    return solved.positions;
  }

  /** Forgets problems that were not needed since the last call. */
  forgetUnused(): void {
    this.unused = this.used;
    this.used = [];
  }
}

const sameValues = (a: Float64Array, b: Float64Array): boolean =>
  a.length === b.length && a.every((value, i) => Object.is(value, b[i]));

function isSame(a: AxisProblem, b: AxisProblem): boolean {
  return (
    a.windowLength === b.windowLength &&
    a.fps === b.fps &&
    a.fixed.size === b.fixed.size &&
    [...a.fixed].every(([frame, at]) => b.fixed.get(frame) === at) &&
    a.bounds.every((bound, side) => sameValues(bound, b.bounds[side]!)) &&
    Object.entries(a.weights).every(([name, weight]) => b.weights[name as keyof typeof b.weights] === weight) &&
    Object.entries(a.goals).every(([name, goal]) => sameValues(goal, b.goals[name as keyof typeof b.goals]))
  );
}
