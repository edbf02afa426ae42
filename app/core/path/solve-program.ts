import { InteriorPoint } from "./interior-point";
import { objectiveAt, type PiecewiseLinearProgram } from "./piecewise-linear-program";

export interface Solution {
  x: Float64Array;
  /** Value of the objective. */
  objective: number;
  iterations: number;
  /** Bound on the objective's distance from the optimum, relative to it. */
  relativeGap: number;
}

const MAX_ITERATIONS = 80;
/** A path this close to the best one cannot be told from it. */
const TOLERANCE = 1e-4;
/** An objective this small is negligible: a fiftieth of the cost of one window length of travel. */
const NOTHING = 2e-2;

/**
 * Solves the program from a start that satisfies its hard constraints (fixed unknowns are set to their values). Stops when
 * the objective is known to be within 1e-4 of the optimum, relatively.
 */
export function solveProgram(program: PiecewiseLinearProgram, start: Float64Array): Solution {
  const x = Float64Array.from(start);
  for (const [index, value] of program.fixed) x[index] = value;
  const method = new InteriorPoint(program, x);
  let iterations = 0;
  while (iterations < MAX_ITERATIONS) {
    const gap = method.gap;
    const isNear = (objective: number) => gap < TOLERANCE * (NOTHING + objective);
    // While even the cheap bound is far off, the objective itself is not worth computing.
    if (isNear(method.objectiveBound()) && isNear(objectiveAt(program, x))) break;
    method.step();
    iterations++;
  }
  const objective = objectiveAt(program, x);
  return { x, objective, iterations, relativeGap: method.gap / (NOTHING + objective) };
}
