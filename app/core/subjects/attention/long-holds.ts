/**
 * Chooses among several states over time, where each stay has a minimum length and each change a price: the best sequence
 * of states over the whole range at once, by dynamic programming (Viterbi 1967) with a minimum length of stays, as in
 * hidden semi-Markov models (Ferguson 1980).
 */
import type { FrameRange } from "../../time/rate";

/** A stay in a state. */
export interface Stay extends FrameRange {
  state: number;
}

/** Totals this close are equal; a change is postponed as long as that costs nothing. */
const SAME = 1e-6;

/** The best and the second best of some values. */
function bestTwo(values: readonly number[]): [number, number] {
  let [first, second] = [-1, -1];
  values.forEach((value, i) => {
    if (first < 0 || value > values[first]!) [first, second] = [i, first];
    else if (second < 0 || value > values[second]!) second = i;
  });
  return [first, second];
}

/**
 * @param gains value of a frame in each state; at least one state, all of the same length
 * @param price of a change
 * @param leastFrames minimum length of a stay; half of it at the ends of the range
 * @returns stays that cover the range from 0 on, in order
 */
export function longHolds(gains: readonly Float64Array[], price: number, leastFrames: number): Stay[] {
  const count = gains[0]!.length;
  if (count === 0) return [];
  const atEnds = Math.max(1, Math.min(leastFrames >> 1, count));
  const least = Math.max(atEnds, leastFrames);
  const sums = gains.map((gain) => {
    const sum = new Float64Array(count + 1);
    gain.forEach((value, i) => (sum[i + 1] = sum[i]! + value));
    return sum;
  });
  // For each state, the best sequence that ends in it at a frame after a stay that is long enough; and the state before
  // that stay, and its start, where the minimum has just been reached: the state itself where the stay continues.
  const best = gains.map(() => new Float64Array(count + 1).fill(-Infinity));
  const from = gains.map((_, state) => new Int16Array(count + 1).fill(state));
  const begins = gains.map(() => new Int32Array(count + 1));
  const enter = (begun: number, end: number) => {
    const [first, second] = bestTwo(best.map((row) => row[begun]!));
    gains.forEach((_, state) => {
      const other = first === state ? second : first;
      if (other < 0) return;
      const comes = best[other]![begun]! - price + sums[state]![end]! - sums[state]![begun]!;
      if (comes === -Infinity || comes < best[state]![end]! - SAME) return;
      best[state]![end] = comes;
      from[state]![end] = other;
      begins[state]![end] = begun;
    });
  };
  for (let end = atEnds; end <= count; end++) {
    gains.forEach((gain, state) => {
      best[state]![end] = end === atEnds ? sums[state]![end]! : best[state]![end - 1]! + gain[end - 1]!;
    });
    const last = end === count ? atEnds : least;
    for (let begun = Math.max(atEnds, end - least); begun <= end - last; begun++) enter(begun, end);
  }
  const stays: Stay[] = [];
  let [state] = bestTwo(best.map((row) => row[count]!));
  for (let end = count; end > 0;) {
    let at = end;
    while (from[state]![at] === state && at > atEnds) at--;
    const before = from[state]![at]!;
    const start = before === state ? 0 : begins[state]![at]!;
    stays.push({ start, end, state });
    [state, end] = [before, start];
  }
  return stays.reverse();
}
