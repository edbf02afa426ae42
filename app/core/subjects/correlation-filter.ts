/**
 * Tracks whatever a box holds with a correlation filter (Bolme et al., "Visual object tracking using adaptive
 * correlation filters", 2010; several channels and a search over scales as in Danelljan et al., DSST, 2014).
 *
 * The filter is learnt in the Fourier domain so that, correlated with a patch around the box, it peaks at the
 * box's centre. A part of it never forgets what the box first held. When the peak is no longer clear, nothing is
 * learnt, the box coasts on, and ever more of the picture around is searched until the thing is found again.
 */
import type { Box } from "../geometry/box";
import type { YuvImage } from "../image/yuv-image";
import { fft2d } from "./fft";
import {
  CELLS,
  CHANNELS,
  describePatch,
  type PatchPlace,
  type PatchWindow,
  SIDE,
  type Spectrum,
  WHOLE_PATCH,
  windowOn,
} from "./patch";

const LEARNING_RATE = 0.07;
const REGULARISATION = 0.01;
/** Share of the filter that stays as it was learnt at first. */
const MEMORY = 0.35;
/** Width of the wanted peak, in cells of the patch. */
const PEAK_SIGMA = 1.2;
/** The patch is this much larger than the box, so that there is room to search. */
const PADDING = 2.4;
const SCALE_STEP = 1.045;
const MAX_SCALE = 6;
/** A change of scale must pay more than this. */
const SCALE_PENALTY = 0.985;
/** A peak weaker than this share of what is usual means that the thing is not seen … */
const LOST_SHARE = 0.38;
/** … or weaker than this many standard deviations of the rest of the response. */
const LOST_RATIO = 5;
/** A thing that was lost is found again only by a clearer peak than would have kept it. */
const FOUND_SHARE = 0.62;
/** A peak this clear is certain; a still picture gives far clearer ones, which say nothing about the next. */
const CERTAIN_RATIO = 24;
/** Pictures that follow one another are much alike: size and looks are taken from one in so many. */
const ADAPT_EVERY = 3;
/** A peak weaker than this share of what is usual teaches nothing. */
const LEARN_SHARE = 0.65;
/** Updates that make out what is usual. */
const SETTLING = 6;
/** Cells around the peak that belong to it. */
const PEAK_REACH = 4;
/** Where a lost thing is searched for, one place after the other, in halves of the patch. */
const SEARCH = [
  [0, 0],
  [1, 0],
  [-1, 0],
  [0, 1],
  [0, -1],
  [1, 1],
  [-1, -1],
  [1, -1],
  [-1, 1],
  [2, 0],
  [-2, 0],
  [3, 0],
  [-3, 0],
  [2, 1],
  [-2, 1],
  [2, -1],
  [-2, -1],
] as const;
/** Places that are searched in each picture beside where the thing should be. */
const SEARCHES = 3;

/** The wanted response, a Gaussian at the centre, in the Fourier domain. */
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

interface Response {
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
  return curvature >= -1e-12 ? 0 : Math.max(-0.5, Math.min(0.5, (0.5 * (left - right)) / curvature));
}

/** What has been learnt: numerators by channel and a common denominator. */
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

/** Moves what is known towards something new by a share. */
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

/** A new filter, a share of the way from one to another. */
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

/** Correlates a patch with what has been learnt. */
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

/** The peak of a response and how clear it is. */
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

export interface Sighting {
  box: Box;
  /** False while the thing is not to be seen and the box only coasts. */
  seen: boolean;
  /** Peak-to-sidelobe ratio: how clear the sighting is. */
  ratio: number;
}

export class CorrelationTracker {
  private cx: number;
  private cy: number;
  private scale = 1;
  private vx = 0;
  private vy = 0;
  private updates = 0;
  private usualRatio = 0;
  private lost = 0;
  private readonly first: Learnt;
  private readonly running: Learnt;
  /** What was learnt at first and what has been since, together. */
  private filter: Learnt;
  private growing = false;
  private readonly patch: { width: number; height: number };
  private readonly focus: PatchWindow;

  /** Begins with what the box holds in this image. */
  constructor(
    image: YuvImage,
    private readonly box: Box,
  ) {
    this.cx = box.x + box.width / 2;
    this.cy = box.y + box.height / 2;
    const side = PADDING * Math.sqrt(box.width * box.height);
    this.patch = { width: Math.max(1.6 * box.width, side), height: Math.max(1.6 * box.height, side) };
    this.focus = windowOn({ width: box.width / this.patch.width, height: box.height / this.patch.height });
    const described = describePatch(image, this.placeAt(1), this.focus);
    this.first = learnFrom(described);
    this.running = learnFrom(described);
    this.filter = this.first;
  }

  private placeAt(factor: number, offsetX = 0, offsetY = 0): PatchPlace {
    const scale = this.scale * factor;
    return {
      cx: this.cx + offsetX,
      cy: this.cy + offsetY,
      width: this.patch.width * scale,
      height: this.patch.height * scale,
    };
  }

  private respond(image: YuvImage, place: PatchPlace): Response {
    return readPeak(correlate(describePatch(image, place, WHOLE_PATCH), this.filter), place);
  }

  private get current(): Box {
    const width = this.box.width * this.scale;
    const height = this.box.height * this.scale;
    return { x: this.cx - width / 2, y: this.cy - height / 2, width, height };
  }

  /** Finds the thing in the next image. */
  update(image: YuvImage): Sighting {
    this.updates++;
    const response = this.lost > 0 ? this.searchAgain(image) : this.respond(image, this.placeAt(1, this.vx, this.vy));
    const share = this.lost > 0 ? FOUND_SHARE : LOST_SHARE;
    const threshold = Math.max(LOST_RATIO, share * this.usualRatio);
    if (this.updates > SETTLING && response.ratio < threshold) {
      this.cx = Math.min(image.width, Math.max(0, this.cx + this.vx));
      this.cy = Math.min(image.height, Math.max(0, this.cy + this.vy));
      this.lost++;
      this.vx *= 0.96;
      this.vy *= 0.96;
      return { box: this.current, seen: false, ratio: response.ratio };
    }
    const [fromX, fromY] = [this.cx, this.cy];
    this.cx += this.vx + response.dx;
    this.cy += this.vy + response.dy;
    if (this.lost === 0) {
      this.vx = 0.6 * this.vx + 0.4 * (this.cx - fromX);
      this.vy = 0.6 * this.vy + 0.4 * (this.cy - fromY);
    }
    this.lost = 0;
    const ratio = Math.min(CERTAIN_RATIO, response.ratio);
    this.usualRatio = this.updates < 4 ? ratio : 0.9 * this.usualRatio + 0.1 * ratio;
    // Half hidden it is still followed, but what hides it is not learnt.
    const due = this.growing || this.updates % ADAPT_EVERY === 0;
    if (due && ratio >= LEARN_SHARE * this.usualRatio) this.adapt(image, response.peak);
    return { box: this.current, seen: true, ratio: response.ratio };
  }

  /** Learns what the thing looks like now, and whether it has grown or shrunk since its peak was `peak`. */
  private adapt(image: YuvImage, peak: number): void {
    let best = 1;
    let bestPeak = peak;
    for (const factor of [SCALE_STEP, 1 / SCALE_STEP]) {
      const tried = SCALE_PENALTY * this.respond(image, this.placeAt(factor)).peak;
      if (tried > bestPeak) [best, bestPeak] = [factor, tried];
    }
    // While it grows or shrinks it does so from picture to picture.
    this.growing = best !== 1;
    this.scale = Math.min(MAX_SCALE, Math.max(1 / MAX_SCALE, this.scale * best));
    blend(this.running, learnFrom(describePatch(image, this.placeAt(1), this.focus)), LEARNING_RATE);
    this.filter = mixed(this.running, this.first, MEMORY);
  }

  /** The clearest peak where the lost thing should be and at some places around, others in each picture. */
  private searchAgain(image: YuvImage): Response {
    let best: Response | null = null;
    for (let k = 0; k <= SEARCHES; k++) {
      const [x, y] = SEARCH[k === 0 ? 0 : 1 + ((this.lost * SEARCHES + k) % (SEARCH.length - 1))]!;
      const place = this.placeAt(1);
      const offset = { x: (x * place.width) / 2, y: (y * place.height) / 2 };
      const response = this.respond(image, this.placeAt(1, this.vx + offset.x, this.vy + offset.y));
      if (best && response.ratio <= best.ratio) continue;
      best = { ...response, dx: response.dx + offset.x, dy: response.dy + offset.y };
    }
    return best!;
  }
}
