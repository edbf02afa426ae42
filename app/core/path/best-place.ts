import { clamped } from "../numbers/clamped";
import { type Term, weightAt } from "./piecewise-linear-program";

/**
 * The common value of all unknowns of least total cost. The sum is convex and piecewise linear: its slope grows only at the
 * ends of intervals, and the minimum is where it changes sign.
 * @param costs terms; those of several unknowns cost nothing where all have the same value
 */
export function bestPlace(costs: readonly Term[], [least, most]: readonly [number, number]): number {
  const ends: { at: number; steeper: number }[] = [];
  let slope = 0;
  for (const term of costs) {
    if (term.stencil.length > 1) continue;
    term.lower.forEach((lower, row) => {
      const [below, above] = [weightAt(term.below, row), weightAt(term.above, row)];
      if (below > 0 && lower > -Infinity) {
        slope -= below;
        ends.push({ at: lower, steeper: below });
      }
      if (above > 0 && term.upper[row]! < Infinity) ends.push({ at: term.upper[row]!, steeper: above });
    });
  }
  ends.sort((a, b) => a.at - b.at);
  // Rounding must not move the end of a level segment to its other end.
  const level = 1e-9 * ends.reduce((sum, { steeper }) => sum + steeper, 0);
  let place = (least + most) / 2;
  for (const { at, steeper } of ends) {
    place = at;
    slope += steeper;
    if (slope >= -level) break;
  }
  return clamped(place, least, most);
}
