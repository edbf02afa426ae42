/** Description of a patch for the correlation filter: channels that survive a change of light. */
import { clamped } from "../../numbers/clamped";
import type { YuvImage } from "../../image/yuv-image";
import { fft2d } from "./fft";

/** Cells along a side of a described patch. */
export const SIDE = 32;
export const CELLS = SIDE * SIDE;
/** Samples along a side; each cell is the mean of 2 × 2. */
const FINE = 2 * SIDE;
/** Chroma that weighs as much as a standard deviation of grey. */
const COLOUR_SCALE = 28;
/** Grey, two chroma channels, and gradient energy in four directions. */
export const CHANNELS = 7;

export interface Spectrum {
  re: Float64Array[];
  im: Float64Array[];
}

/** A rectangle in pixels by its centre. */
export interface PatchPlace {
  cx: number;
  cy: number;
  width: number;
  height: number;
}

/** Weights of the columns and rows of a patch. */
export interface PatchWindow {
  across: Float64Array;
  down: Float64Array;
}

const HANN = Float64Array.from({ length: SIDE }, (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * (i + 0.5)) / SIDE));

/** The whole patch, fading towards its edges: for searching. */
export const WHOLE_PATCH: PatchWindow = { across: HANN, down: HANN };

/** Width of the falloff for learning, in halves of the thing. */
const FALLOFF = 0.85;

/** Little more than the thing itself, given as shares of the patch: for learning, so that the background is not learnt. */
export function windowOn(share: { width: number; height: number }): PatchWindow {
  const line = (extent: number) =>
    HANN.map((hann, i) => {
      const away = Math.abs((i + 0.5) / SIDE - 0.5) / (extent / 2);
      return hann * Math.exp(-0.5 * (away / FALLOFF) ** 4);
    });
  return { across: line(share.width), down: line(share.height) };
}

const fine = new Float32Array(FINE * FINE);

/** Bilinear samples of luma on a grid around a centre; the picture's edge repeats beyond it. */
function sampleLuma(image: YuvImage, { cx, cy, width, height }: PatchPlace): void {
  const { luma, width: stride } = image;
  for (let j = 0, to = 0; j < FINE; j++) {
    const y = clamped(cy + ((j + 0.5) / FINE - 0.5) * height - 0.5, 0, image.height - 1.001);
    const y0 = Math.floor(y);
    const fy = y - y0;
    for (let i = 0; i < FINE; i++, to++) {
      const x = clamped(cx + ((i + 0.5) / FINE - 0.5) * width - 0.5, 0, stride - 1.001);
      const x0 = Math.floor(x);
      const at = y0 * stride + x0;
      const top = luma[at]! + (luma[at + 1]! - luma[at]!) * (x - x0);
      const bottom = luma[at + stride]! + (luma[at + stride + 1]! - luma[at + stride]!) * (x - x0);
      fine[to] = top + (bottom - top) * fy;
    }
  }
}

/** Nearest samples of chroma, windowed. */
function sampleColours(
  image: YuvImage,
  { cx, cy, width, height }: PatchPlace,
  { across, down }: PatchWindow,
  blue: Float64Array,
  red: Float64Array,
): void {
  const half = image.width >> 1;
  const rows = image.height >> 1;
  for (let j = 0, to = 0; j < SIDE; j++) {
    const y = clamped(Math.floor((cy + ((j + 0.5) / SIDE - 0.5) * height) / 2), 0, rows - 1);
    for (let i = 0; i < SIDE; i++, to++) {
      const x = clamped(Math.floor((cx + ((i + 0.5) / SIDE - 0.5) * width) / 2), 0, half - 1);
      const window = across[i]! * down[j]!;
      blue[to] = (window * (image.blue[y * half + x]! - 128)) / COLOUR_SCALE;
      red[to] = (window * (image.red[y * half + x]! - 128)) / COLOUR_SCALE;
    }
  }
}

/** Transforms two real channels at once, with one as the imaginary part. */
function transformPair(
  a: Float64Array,
  b: Float64Array,
): { a: [Float64Array, Float64Array]; b: [Float64Array, Float64Array] } {
  fft2d(a, b, SIDE, false);
  const [are, aim, bre, bim] = [0, 1, 2, 3].map(() => new Float64Array(CELLS)) as [
    Float64Array,
    Float64Array,
    Float64Array,
    Float64Array,
  ];
  for (let y = 0; y < SIDE; y++) {
    for (let x = 0; x < SIDE; x++) {
      const k = y * SIDE + x;
      const mirrored = ((SIDE - y) % SIDE) * SIDE + ((SIDE - x) % SIDE);
      are[k] = 0.5 * (a[k]! + a[mirrored]!);
      aim[k] = 0.5 * (b[k]! - b[mirrored]!);
      bre[k] = 0.5 * (b[k]! + b[mirrored]!);
      bim[k] = 0.5 * (a[mirrored]! - a[k]!);
    }
  }
  return { a: [are, aim], b: [bre, bim] };
}

/** Arc tangent of a ratio from 0 to 1, in eighths of a turn, to within 0.005 (Rajan et al. 2006). */
const eighths = (ratio: number): number => ratio * (1 + 0.3476 * (1 - ratio));

/** Direction of a gradient without its sign, 0 to 4 for half a turn. */
function quarterTurns(gx: number, gy: number): number {
  const [x, y] = gy < 0 ? [-gx, -gy] : [gx, gy];
  const across = Math.abs(x);
  if (across >= y) return x >= 0 ? eighths(y / across) : 4 - eighths(y / across);
  return x >= 0 ? 2 - eighths(across / y) : 2 + eighths(across / y);
}

/** The channels of a patch, windowed and transformed. */
export function describePatch(image: YuvImage, place: PatchPlace, window: PatchWindow): Spectrum {
  sampleLuma(image, place);
  let mean = 0;
  for (let i = 0; i < fine.length; i++) mean += fine[i]!;
  mean /= fine.length;
  let variance = 0;
  for (let i = 0; i < fine.length; i++) variance += (fine[i]! - mean) ** 2;
  const deviation = Math.sqrt(variance / fine.length) + 5;
  const channels = Array.from({ length: CHANNELS + 1 }, () => new Float64Array(CELLS));
  for (let y = 0; y < FINE; y++) {
    for (let x = 0; x < FINE; x++) {
      const cell = (y >> 1) * SIDE + (x >> 1);
      const weight = 0.25 * window.across[x >> 1]! * window.down[y >> 1]!;
      const at = y * FINE + x;
      channels[0]![cell]! += (0.6 * weight * (fine[at]! - mean)) / deviation;
      if (x === 0 || y === 0 || x === FINE - 1 || y === FINE - 1) continue;
      const gx = fine[at + 1]! - fine[at - 1]!;
      const gy = fine[at + FINE]! - fine[at - FINE]!;
      const size = Math.sqrt(gx * gx + gy * gy);
      if (size < 1) continue;
      const strength = weight * Math.min(1.5, size / (0.6 * deviation + 7));
      // Direction without sign, distributed over the two nearest of four.
      const direction = quarterTurns(gx, gy);
      const nearest = Math.floor(direction);
      const share = direction - nearest;
      channels[3 + (nearest & 3)]![cell]! += strength * (1 - share);
      channels[3 + ((nearest + 1) & 3)]![cell]! += strength * share;
    }
  }
  sampleColours(image, place, window, channels[1]!, channels[2]!);
  const spectrum: Spectrum = { re: [], im: [] };
  for (let c = 0; c < CHANNELS; c += 2) {
    const pair = transformPair(channels[c]!, channels[c + 1]!);
    spectrum.re.push(pair.a[0], pair.b[0]);
    spectrum.im.push(pair.a[1], pair.b[1]);
  }
  spectrum.re.length = CHANNELS;
  spectrum.im.length = CHANNELS;
  return spectrum;
}
