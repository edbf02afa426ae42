/**
 * The path of one coordinate with hand keys. A key should change the path up to the keys beside it and no further, so each
 * free segment is solved by itself. The two segments at a key share how the path passes through it: as if there were no
 * other key.
 */
import { cutGoals } from "./framing-goals";
import type { AxisProblem } from "./solve-axis";
import { SolvedProblems } from "./solved-problems";

/** Seconds around a key that determine how the path passes through it. */
const PASSING_SECONDS = 3;

/** The part of a problem from one frame to another, with its own given places. */
function part(problem: AxisProblem, start: number, end: number, fixed: ReadonlyMap<number, number>): AxisProblem {
  const cut = (values: Float64Array) => values.subarray(start, end);
  const { goals, bounds } = problem;
  return {
    ...problem,
    goals: cutGoals(goals, start, end),
    bounds: [cut(bounds[0]), cut(bounds[1])],
    fixed: new Map([...fixed].flatMap(([frame, at]) => (frame >= start && frame < end ? [[frame - start, at]] : []))),
  };
}

/** Positions just before and after a key that is the only one: they give the speed and acceleration there. */
function passing(problem: AxisProblem, frame: number, at: number, solved: SolvedProblems): [number, number][] {
  const reach = Math.ceil(PASSING_SECONDS * problem.fps);
  const start = Math.max(0, frame - reach);
  const end = Math.min(problem.goals.wanted.length, frame + reach + 1);
  const positions = solved.solve(part(problem, start, end, new Map([[frame, at]])));
  return [frame - 1, frame + 1].flatMap((beside): [number, number][] =>
    beside >= start && beside < end ? [[beside, positions[beside - start]!]] : [],
  );
}

/**
 * Positions in pixels, one per frame. Given places are met exactly; each influences the path only between its neighbours.
 * @param solved problems solved before, which are not solved again
 */
export function solveSegments(problem: AxisProblem, solved = new SolvedProblems()): Float64Array {
  const count = problem.goals.wanted.length;
  const keys = [...problem.fixed].sort(([a], [b]) => a - b);
  const given = new Map<number, number>();
  for (const [frame, at] of keys) {
    for (const [beside, place] of passing(problem, frame, at, solved)) {
      // Two keys with one frame between them leave no room to pass as either would.
      const other = given.get(beside);
      given.set(beside, other === undefined ? place : (other + place) / 2);
    }
  }
  for (const [frame, at] of keys) given.set(frame, at);
  const positions = new Float64Array(count);
  const frames = keys.map(([frame]) => frame);
  const ends = [0, ...frames.filter((frame) => frame > 0 && frame < count - 1), count - 1];
  for (let i = 0; i + 1 < ends.length; i++) {
    // One frame beyond each key is given as well.
    const start = Math.max(0, ends[i]! - 1);
    const end = Math.min(count, ends[i + 1]! + 2);
    positions.set(solved.solve(part(problem, start, end, given)), start);
  }
  return positions;
}
