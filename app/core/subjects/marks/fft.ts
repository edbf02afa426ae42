import FFT from "fft.js";

interface Plan {
  fft: FFT;
  input: number[];
  output: number[];
}

const plans = new Map<number, Plan>();

function planFor(size: number): Plan {
  let plan = plans.get(size);
  if (!plan) {
    const fft = new FFT(size);
    plans.set(size, (plan = { fft, input: fft.createComplexArray(), output: fft.createComplexArray() }));
  }
  return plan;
}

/** The transform of one row or column in place. */
function transformLine(
  plan: Plan,
  re: Float64Array,
  im: Float64Array,
  first: number,
  stride: number,
  inverse: boolean,
): void {
  const { fft, input, output } = plan;
  for (let i = 0, at = first; i < fft.size; i++, at += stride) {
    input[2 * i] = re[at]!;
    input[2 * i + 1] = im[at]!;
  }
  if (inverse) fft.inverseTransform(output, input);
  else fft.transform(output, input);
  for (let i = 0, at = first; i < fft.size; i++, at += stride) {
    re[at] = output[2 * i]!;
    im[at] = output[2 * i + 1]!;
  }
}

/**
 * The two-dimensional discrete Fourier transform of a square of side `size` (a power of two), in place. The
 * inverse includes the division by the number of samples.
 */
export function fft2d(re: Float64Array, im: Float64Array, size: number, inverse: boolean): void {
  const plan = planFor(size);
  for (let y = 0; y < size; y++) transformLine(plan, re, im, y * size, 1, inverse);
  for (let x = 0; x < size; x++) transformLine(plan, re, im, x, size, inverse);
}
