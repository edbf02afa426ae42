/**
 * Tracks whatever a box holds with a correlation filter (Bolme et al., "Visual object tracking using adaptive
 * correlation filters", 2010; several channels and a search over scales as in Danelljan et al., DSST, 2014).
 *
 * The filter is learnt in the Fourier domain so that, correlated with a patch around the box, it peaks at the
 * box's centre. When the peak is no longer clear, nothing is learnt and the box coasts on.
 */
import type { Box } from "../geometry/box";
import type { RgbImage } from "../image/rgb-image";
import { fft2d } from "./fft";

const SIDE = 64;
const CELLS = SIDE * SIDE;
/** Grey, two colour differences, and gradient energy in four directions. */
const CHANNELS = 7;
const LEARNING_RATE = 0.025;
const REGULARISATION = 0.01;
/** Width of the wanted peak, in cells of the patch. */
const PEAK_SIGMA = 1.8;
/** The patch is this much larger than the box, so that there is room to search. */
const PADDING = 2.2;
const SCALES = [0.95, 0.975, 1, 1.025, 1.05];
/** A change of scale must pay more than this. */
const SCALE_PENALTY = 0.985;
/** A peak weaker than this share of what is usual means that the thing is not seen. */
const LOST_SHARE = 0.4;
/** … or weaker than this many standard deviations of the rest of the response. */
const LOST_RATIO = 7;

interface Spectrum {
  re: Float64Array[];
  im: Float64Array[];
}

interface Response {
  /** Offset of the peak from the patch's centre, in pixels of the image. */
  dx: number;
  dy: number;
  peak: number;
  /** Peak-to-sidelobe ratio. */
  ratio: number;
}

const HANN = Float64Array.from({ length: SIDE }, (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / (SIDE - 1)));

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

/** Bilinear samples of an image on a grid of SIDE × SIDE around a centre; beyond the edge the edge repeats. */
function samplePatch(image: RgbImage, cx: number, cy: number, width: number, height: number): Float64Array {
  const patch = new Float64Array(CELLS * 3);
  for (let j = 0; j < SIDE; j++) {
    const y = Math.min(image.height - 1.001, Math.max(0, cy + ((j + 0.5) / SIDE - 0.5) * height - 0.5));
    const y0 = Math.floor(y);
    const fy = y - y0;
    for (let i = 0; i < SIDE; i++) {
      const x = Math.min(image.width - 1.001, Math.max(0, cx + ((i + 0.5) / SIDE - 0.5) * width - 0.5));
      const x0 = Math.floor(x);
      const fx = x - x0;
      const a = (y0 * image.width + x0) * 3;
      const b = a + image.width * 3;
      for (let c = 0; c < 3; c++) {
        const top = image.data[a + c]! + (image.data[a + 3 + c]! - image.data[a + c]!) * fx;
        const bottom = image.data[b + c]! + (image.data[b + 3 + c]! - image.data[b + c]!) * fx;
        patch[(j * SIDE + i) * 3 + c] = top + (bottom - top) * fy;
      }
    }
  }
  return patch;
}

/** Channels of a patch, windowed and transformed. */
function describe(image: RgbImage, cx: number, cy: number, width: number, height: number): Spectrum {
  const patch = samplePatch(image, cx, cy, width, height);
  const grey = new Float64Array(CELLS);
  let mean = 0;
  for (let i = 0; i < CELLS; i++) {
    grey[i] = (0.2126 * patch[i * 3]! + 0.7152 * patch[i * 3 + 1]! + 0.0722 * patch[i * 3 + 2]!) / 255;
    mean += grey[i]! / CELLS;
  }
  let variance = 0;
  for (let i = 0; i < CELLS; i++) variance += (grey[i]! - mean) ** 2 / CELLS;
  const deviation = Math.sqrt(variance) + 0.02;
  const re = Array.from({ length: CHANNELS }, () => new Float64Array(CELLS));
  for (let y = 0; y < SIDE; y++) {
    for (let x = 0; x < SIDE; x++) {
      const i = y * SIDE + x;
      const window = HANN[x]! * HANN[y]!;
      const [r, g, b] = [patch[i * 3]!, patch[i * 3 + 1]!, patch[i * 3 + 2]!];
      re[0]![i] = (0.6 * window * (grey[i]! - mean)) / deviation;
      re[1]![i] = (window * (r - g)) / 128;
      re[2]![i] = (window * (b - (r + g) / 2)) / 128;
      if (x === 0 || y === 0 || x === SIDE - 1 || y === SIDE - 1) continue;
      const gx = grey[i + 1]! - grey[i - 1]!;
      const gy = grey[i + SIDE]! - grey[i - SIDE]!;
      const strength = window * Math.min(1.5, Math.hypot(gx, gy) / (0.6 * deviation + 0.03));
      // Direction without sign, shared between the two nearest of four.
      const direction = (((Math.atan2(gy, gx) + Math.PI) / Math.PI) * 4) % 4;
      const nearest = Math.floor(direction);
      const share = direction - nearest;
      re[3 + nearest]![i]! += strength * (1 - share);
      re[3 + ((nearest + 1) % 4)]![i]! += strength * share;
    }
  }
  const im = re.map((channel) => {
    const imaginary = new Float64Array(CELLS);
    fft2d(channel, imaginary, SIDE, false);
    return imaginary;
  });
  return { re, im };
}

/** Vertex of the parabola through three values at −1, 0, 1. */
function vertex(left: number, middle: number, right: number): number {
  const curvature = left - 2 * middle + right;
  return curvature >= -1e-12 ? 0 : Math.max(-0.5, Math.min(0.5, (0.5 * (left - right)) / curvature));
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
  private readonly numerator: Spectrum;
  private readonly denominator = new Float64Array(CELLS);
  private readonly patch: { width: number; height: number };

  /** Begins with what the box holds in this image. */
  constructor(
    image: RgbImage,
    private readonly box: Box,
  ) {
    this.cx = box.x + box.width / 2;
    this.cy = box.y + box.height / 2;
    const side = PADDING * Math.sqrt(box.width * box.height);
    this.patch = { width: Math.max(1.6 * box.width, side), height: Math.max(1.6 * box.height, side) };
    const blank = () => Array.from({ length: CHANNELS }, () => new Float64Array(CELLS));
    this.numerator = { re: blank(), im: blank() };
    this.learn(image, 1);
  }

  private learn(image: RgbImage, rate: number): void {
    const { re, im } = describe(image, this.cx, this.cy, this.patch.width * this.scale, this.patch.height * this.scale);
    for (let i = 0; i < CELLS; i++) {
      let energy = 0;
      for (let c = 0; c < CHANNELS; c++) energy += re[c]![i]! ** 2 + im[c]![i]! ** 2;
      this.denominator[i] = (1 - rate) * this.denominator[i]! + rate * energy;
    }
    for (let c = 0; c < CHANNELS; c++) {
      const nr = this.numerator.re[c]!;
      const ni = this.numerator.im[c]!;
      for (let i = 0; i < CELLS; i++) {
        const [a, b] = [re[c]![i]!, im[c]![i]!];
        nr[i] = (1 - rate) * nr[i]! + rate * (WANTED.re[i]! * a + WANTED.im[i]! * b);
        ni[i] = (1 - rate) * ni[i]! + rate * (WANTED.im[i]! * a - WANTED.re[i]! * b);
      }
    }
  }

  private respond(image: RgbImage, scale: number): Response {
    const width = this.patch.width * scale;
    const height = this.patch.height * scale;
    const { re, im } = describe(image, this.cx, this.cy, width, height);
    const response = new Float64Array(CELLS);
    const imaginary = new Float64Array(CELLS);
    let mean = 0;
    for (const value of this.denominator) mean += value / CELLS;
    for (let i = 0; i < CELLS; i++) {
      let a = 0;
      let b = 0;
      for (let c = 0; c < CHANNELS; c++) {
        const [nr, ni] = [this.numerator.re[c]![i]!, this.numerator.im[c]![i]!];
        a += nr * re[c]![i]! - ni * im[c]![i]!;
        b += nr * im[c]![i]! + ni * re[c]![i]!;
      }
      const energy = this.denominator[i]! + REGULARISATION * mean;
      response[i] = a / energy;
      imaginary[i] = b / energy;
    }
    fft2d(response, imaginary, SIDE, true);
    let at = 0;
    for (let i = 1; i < CELLS; i++) if (response[i]! > response[at]!) at = i;
    const px = at % SIDE;
    const py = Math.floor(at / SIDE);
    let sum = 0;
    let squares = 0;
    let count = 0;
    for (let y = 0; y < SIDE; y++) {
      for (let x = 0; x < SIDE; x++) {
        if (Math.abs(x - px) <= 5 && Math.abs(y - py) <= 5) continue;
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

  private get current(): Box {
    const width = this.box.width * this.scale;
    const height = this.box.height * this.scale;
    return { x: this.cx - width / 2, y: this.cy - height / 2, width, height };
  }

  /** Finds the thing in the next image. */
  update(image: RgbImage): Sighting {
    if (this.lost > 0) {
      this.cx += this.vx;
      this.cy += this.vy;
    }
    const response = this.respond(image, this.scale);
    this.updates++;
    const threshold = Math.max(LOST_RATIO, LOST_SHARE * this.usualRatio);
    if (this.updates > 8 && response.ratio < threshold) {
      if (this.lost === 0) {
        this.cx += this.vx;
        this.cy += this.vy;
      }
      this.lost++;
      this.vx *= 0.95;
      this.vy *= 0.95;
      return { box: this.current, seen: false, ratio: response.ratio };
    }
    this.cx += response.dx;
    this.cy += response.dy;
    if (this.lost === 0) {
      this.vx = 0.7 * this.vx + 0.3 * response.dx;
      this.vy = 0.7 * this.vy + 0.3 * response.dy;
    }
    this.lost = 0;
    this.updateScale(image);
    this.usualRatio = this.updates < 5 ? response.ratio : 0.9 * this.usualRatio + 0.1 * response.ratio;
    this.learn(image, LEARNING_RATE);
    return { box: this.current, seen: true, ratio: response.ratio };
  }

  private updateScale(image: RgbImage): void {
    let best = 1;
    let bestPeak = -Infinity;
    for (const factor of SCALES) {
      const { peak } = this.respond(image, this.scale * factor);
      const value = peak * (factor === 1 ? 1 : SCALE_PENALTY);
      if (value > bestPeak) [best, bestPeak] = [factor, value];
    }
    this.scale = Math.min(5, Math.max(0.2, this.scale * (1 + 0.6 * (best - 1))));
  }
}
