/**
 * A correlation filter: learnt in the Fourier domain so that, correlated with a patch around a thing, it peaks at the
 * thing's centre (Bolme et al., "Visual object tracking using adaptive correlation filters", 2010; several channels as in
 * Danelljan et al., DSST, 2014). Part of it keeps what was learnt first.
 */
import { clamped } from "../../numbers/clamped";
import { fft2d } from "./fft";
import { CELLS, CHANNELS, type PatchPlace, SIDE, type Spectrum } from "./patch";

const LEARNING_RATE = 0.07;
const REGULARISATION = 0.01;
/** Share of the filter that stays as learnt at first. */
const MEMORY = 0.35;
/** Width of the wanted peak, in cells of the patch. */
const PEAK_SIGMA = 1.2;
/** Cells around the peak that belong to it. */
const PEAK_REACH = 4;

/** The desired response, a Gaussian at the centre, in the Fourier domain. */
const WANTED = (() => {
  const re = new Float64Array(CELLS);
  const im = new Float64Array(CELLS);
  for (let y = 0; y < SIDE; y++) {
    for (let x = 0; x < SIDE; x++) {
      const squared = (x - SIDE / 2) ** 2 + (y - SIDE / 2) ** 2;
      re[y * SIDE + x] = Math.exp(-squared / (2 * PEAK_SIGMA ** 2));
    }
  }
  fft2d(re, im, SIDE, false);
  return { re, im };
})();

export interface Response {
  /** Offset of the peak from the patch's centre, in pixels of the image. */
  dx: number;
  dy: number;
  peak: number;
  /** Peak-to-sidelobe ratio. */
  ratio: number;
}

/** Vertex of the parabola through three values at −1, 0, 1. */
function vertex(left: number, middle: number, right: number): number {
  const curvature = left - 2 * middle + right;
  return curvature >= -1e-12 ? 0 : clamped((0.5 * (left - right)) / curvature, -0.5, 0.5);
}

/** Learnt state: numerators by channel and a common denominator. */
interface Learnt {
  numerator: Spectrum;
  denominator: Float64Array;
}

function learnFrom({ re, im }: Spectrum): Learnt {
  const denominator = new Float64Array(CELLS);
  const numerator: Spectrum = { re: [], im: [] };
  for (let c = 0; c < CHANNELS; c++) {
    const nr = new Float64Array(CELLS);
    const ni = new Float64Array(CELLS);
    for (let i = 0; i < CELLS; i++) {
      const [a, b] = [re[c]![i]!, im[c]![i]!];
      nr[i] = WANTED.re[i]! * a + WANTED.im[i]! * b;
      ni[i] = WANTED.im[i]! * a - WANTED.re[i]! * b;
      denominator[i]! += a * a + b * b;
    }
    numerator.re.push(nr);
    numerator.im.push(ni);
  }
  return { numerator, denominator };
}

/** Moves the learnt state towards a new one by a share. */
function blend(known: Learnt, fresh: Learnt, share: number): void {
  const mix = (into: Float64Array, from: Float64Array) => {
    for (let i = 0; i < CELLS; i++) into[i] = (1 - share) * into[i]! + share * from[i]!;
  };
  mix(known.denominator, fresh.denominator);
  for (let c = 0; c < CHANNELS; c++) {
    mix(known.numerator.re[c]!, fresh.numerator.re[c]!);
    mix(known.numerator.im[c]!, fresh.numerator.im[c]!);
  }
}

/** A new state, a share of the way from one to another. */
function mixed(from: Learnt, to: Learnt, share: number): Learnt {
  const copy = (array: Float64Array) => Float64Array.from(array);
  const { numerator, denominator } = from;
  const both: Learnt = {
    numerator: { re: numerator.re.map(copy), im: numerator.im.map(copy) },
    denominator: copy(denominator),
  };
  blend(both, to, share);
  return both;
}

/** Correlates a patch with the learnt state. */
function correlate({ re, im }: Spectrum, { numerator, denominator }: Learnt): Float64Array {
  const response = new Float64Array(CELLS);
  const imaginary = new Float64Array(CELLS);
  for (let c = 0; c < CHANNELS; c++) {
    const [nr, ni, pr, pi] = [numerator.re[c]!, numerator.im[c]!, re[c]!, im[c]!];
    for (let i = 0; i < CELLS; i++) {
      response[i]! += nr[i]! * pr[i]! - ni[i]! * pi[i]!;
      imaginary[i]! += nr[i]! * pi[i]! + ni[i]! * pr[i]!;
    }
  }
  let mean = 0;
  for (let i = 0; i < CELLS; i++) mean += denominator[i]! / CELLS;
  for (let i = 0; i < CELLS; i++) {
    const energy = denominator[i]! + REGULARISATION * mean;
    response[i]! /= energy;
    imaginary[i]! /= energy;
  }
  fft2d(response, imaginary, SIDE, true);
  return response;
}

/** The peak of a response, and how clear it is. */
function readPeak(response: Float64Array, { width, height }: PatchPlace): Response {
  let at = 0;
  for (let i = 1; i < CELLS; i++) if (response[i]! > response[at]!) at = i;
  const px = at % SIDE;
  const py = Math.floor(at / SIDE);
  let sum = 0;
  let squares = 0;
  let count = 0;
  for (let y = 0; y < SIDE; y++) {
    for (let x = 0; x < SIDE; x++) {
      if (Math.abs(x - px) <= PEAK_REACH && Math.abs(y - py) <= PEAK_REACH) continue;
      const value = response[y * SIDE + x]!;
      sum += value;
      squares += value * value;
      count++;
    }
  }
  const sidelobe = sum / count;
  const deviation = Math.sqrt(Math.max(0, squares / count - sidelobe ** 2)) + 1e-9;
  const value = (x: number, y: number) => response[y * SIDE + x]!;
  const ox = px > 0 && px < SIDE - 1 ? vertex(value(px - 1, py), value(px, py), value(px + 1, py)) : 0;
  const oy = py > 0 && py < SIDE - 1 ? vertex(value(px, py - 1), value(px, py), value(px, py + 1)) : 0;
  return {
    dx: ((px + ox - SIDE / 2) * width) / SIDE,
    dy: ((py + oy - SIDE / 2) * height) / SIDE,
    peak: response[at]!,
    ratio: (response[at]! - sidelobe) / deviation,
  };
}

export class CorrelationFilter {
  private readonly first: Learnt;
  private readonly running: Learnt;
  /** The first state and later ones combined. */
  private known: Learnt;

  /** Learns from a patch with the thing at its centre. */
  constructor(patch: Spectrum) {
    this.first = learnFrom(patch);
    this.running = learnFrom(patch);
    this.known = this.first;
  }

  /** Finds the thing in a patch, and how clearly. */
  respond(patch: Spectrum, place: PatchPlace): Response {
    return readPeak(correlate(patch, this.known), place);
  }

  /** Learns gradually from the thing's present appearance. */
  learn(patch: Spectrum): void {
    blend(this.running, learnFrom(patch), LEARNING_RATE);
    this.known = mixed(this.running, this.first, MEMORY);
  }
}
