/** Weights of a resampling for the kernel: a sharper filter for enlarging than for reducing. */

/** Catmull-Rom: the cubic that reproduces parabolas, with the least overshoot (a = −1/2). */
function cubic(distance: number): number {
  const x = Math.abs(distance);
  if (x < 1) return (1.5 * x - 2.5) * x * x + 1;
  if (x < 2) return ((-0.5 * x + 2.5) * x - 4) * x + 2;
  return 0;
}

/**
 * Cubic convolution over six samples (Keys, 1981, equation 25): it reproduces cubics, so that sub-pixel shifts are exact,
 * as they are not with Lanczos, and it is nearly as sharp. From photographs that were reduced and enlarged again it
 * restores more than the cubic over four samples (`./glad-pan bench render --only filters`), and takes no longer: there is
 * room for eight.
 */
function sixPoint(distance: number): number {
  const x = Math.abs(distance);
  if (x < 1) return ((4 / 3) * x - 7 / 3) * x * x + 1;
  if (x < 2) return ((-7 / 12) * x + 3) * x * x - (59 / 12) * x + 5 / 2;
  if (x < 3) return ((1 / 12) * x - 2 / 3) * x * x + (7 / 4) * x - 3 / 2;
  return 0;
}
/** Distance within which samples count. */
const SIX_POINT_REACH = 3;

const UNIT = 1 << 14;

/**
 * Weights of a 1-D resampling. Output sample i lies at `start + (i + 0.5) · step` in the source, where the sample k lies at
 * k + 0.5; positions beyond the edge repeat the edge. Writes the first source index and `taps` weights of each output
 * sample; a sample's weights sum to exactly 2^14.
 */
export function fillWeights(
  starts: Int32Array,
  weights: Int16Array,
  taps: number,
  start: number,
  step: number,
  sourceLength: number,
): void {
  const stretch = Math.max(1, step);
  const [weightAt, reach] = step < 1 ? [sixPoint, SIX_POINT_REACH] : [cubic, 2 * stretch];
  const row = new Float64Array(taps);
  for (let i = 0; i < starts.length; i++) {
    const centre = start + (i + 0.5) * step - 0.5;
    const from = Math.ceil(centre - reach);
    const to = Math.floor(centre + reach);
    const first = Math.max(0, Math.min(sourceLength - taps, from));
    row.fill(0);
    let sum = 0;
    for (let k = from; k <= to; k++) {
      const weight = weightAt((k - centre) / stretch);
      const inside = Math.max(0, Math.min(sourceLength - 1, k)) - first;
      row[Math.max(0, Math.min(taps - 1, inside))]! += weight;
      sum += weight;
    }
    let rest = UNIT;
    let largest = 0;
    for (let k = 0; k < taps; k++) {
      const value = Math.round((row[k]! / sum) * UNIT);
      weights[i * taps + k] = value;
      rest -= value;
      if (row[k]! > row[largest]!) largest = k;
    }
    weights[i * taps + largest]! += rest;
    starts[i] = first;
  }
}

/** Taps needed for a step: a cubic spans four samples, more when it reduces, six when it enlarges; a multiple of eight. */
export const tapsFor = (step: number): number => Math.ceil((4 * Math.max(1, step) + 1) / 8) * 8;
